package api

import (
	"io/fs"
	"net/http"
	"path"
	"strings"

	"github.com/gin-contrib/gzip"
	"github.com/gin-gonic/gin"
)

// compressed packs what goes out, where the browser takes it: the page and its scripts become
// a third, long answers a tenth. Sounds, fonts and pictures are packed already.
func compressed() gin.HandlerFunc {
	return gzip.Gzip(gzip.DefaultCompression, gzip.WithExcludedExtensions([]string{".ogg", ".woff2", ".png", ".mxl"}),
		// Of sound ranges are asked for, which are counted in its own bytes.
		gzip.WithExcludedPathsRegexs([]string{`^/api/takes/\d+/sound$`, `^/api/bundle$`}))
}

// frontEnd serves the built front end. Every address that is not a file or part
// of the API is a view of the one page. Built assets carry a hash of their
// content in their name, and so may be kept by the browser for good.
func frontEnd(web fs.FS) gin.HandlerFunc {
	files := http.FileServerFS(web)
	return func(c *gin.Context) {
		name := strings.TrimPrefix(path.Clean(c.Request.URL.Path), "/")
		if strings.HasPrefix(name, "api/") {
			refuse(c, http.StatusNotFound, "there is no such resource; /openapi.json lists them all")
			return
		}
		if c.Request.Method != http.MethodGet && c.Request.Method != http.MethodHead {
			refuse(c, http.StatusMethodNotAllowed, "pages can only be read")
			return
		}
		if info, err := fs.Stat(web, name); err != nil || info.IsDir() {
			c.Header("Cache-Control", "no-cache")
			c.Request.URL.Path = "/"
		} else if strings.HasPrefix(name, "assets/") {
			c.Header("Cache-Control", "public, max-age=31536000, immutable")
		}
		files.ServeHTTP(c.Writer, c.Request)
	}
}
