// Package api serves Undaris over HTTP: the computations of the core, the kept
// things of the store, and the front end. Each resource has a file of its own.
package api

import (
	"io/fs"
	"log/slog"
	"net/http"
	"os"
	"path/filepath"
	"runtime/debug"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"

	"undaris/access"
	"undaris/library/backup"
	bundles "undaris/library/bundle"
	"undaris/library/documents"
	keptpractice "undaris/library/practice"
	"undaris/library/recording"
	"undaris/store"
)

// Config is what a server is made from.
type Config struct {
	Store *store.Store
	// Sounds are the files of sound of takes.
	Sounds *store.Sounds
	// Backups are the backups of the data file; nil puts them where the machine keeps what is for now.
	Backups *backup.Backups
	// Web is the built front end; nil serves the API alone.
	Web     fs.FS
	Version string
	// Demo says that the data is the demo set.
	Demo bool
	// Access lets in who knows the passphrase; nil lets everybody in who reaches the server.
	Access *access.Access
	// TLS says that the server is reached over TLS.
	TLS bool
	// Authority is the certificate, in DER, that devices in the house are to trust; nil for none.
	Authority []byte
	// Addresses are where devices in the house reach the server, the likeliest first; none on this machine alone.
	Addresses []string
	// Loopback says that the server listens to this machine alone, and then
	// answers only to the names of this machine.
	Loopback bool
	Log      *slog.Logger
	// Now is the clock; nil is the machine's. A test sets it.
	Now func() time.Time
}

// server is what the handlers share.
type server struct {
	store    *store.Store
	library  *documents.Library
	practice *keptpractice.Practice
	version  string
	demo     bool
	log      *slog.Logger
	now      func() time.Time
	// sounds are the files of sound, recordings what is being recorded into them.
	sounds     *store.Sounds
	recordings *recording.Recordings
	backups    *backup.Backups
	uploads    *bundles.Uploads
	// How other machines reach this one, and who is let in.
	access    *access.Access
	addresses []string
	authority []byte
	tls       bool
	// lickIndexes are remembered between searches.
	lickIndexes lickIndexes
}

// New builds the handler for the whole application.
func New(c Config) http.Handler {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.Use(logged(c.Log), recovered(c.Log), guarded(c), queued(longAtOnce()), compressed(), refusing)
	s := &server{store: c.Store, library: documents.New(c.Store, c.Log), version: c.Version, demo: c.Demo, log: c.Log, now: c.Now}
	s.practice = keptpractice.New(s.library)
	if s.now == nil {
		s.now = time.Now
	}
	s.sounds, s.recordings = c.Sounds, recording.New(c.Sounds, s.now)
	s.backups = c.Backups
	if s.backups == nil {
		aside := filepath.Join(os.TempDir(), "undaris")
		s.backups = &backup.Backups{DataFile: aside, Folder: backup.BackupsBeside(aside), Live: c.Store, Sounds: c.Sounds, Now: s.now}
	}
	s.uploads = bundles.UploadsBeside(s.backups.DataFile)
	s.access, s.addresses, s.authority, s.tls = c.Access, c.Addresses, c.Authority, c.TLS
	if c.Access != nil {
		s.registerEntrance(router)
	}
	s.register(humagin.New(router, apiConfig(c.Version)))
	router.HandleMethodNotAllowed = true
	router.NoMethod(otherMethod)
	if c.Web != nil {
		router.NoRoute(frontEnd(c.Web))
	}
	return headAsGet(router)
}

func apiConfig(version string) huma.Config {
	huma.DefaultArrayNullable = false
	config := huma.DefaultConfig("Undaris", version)
	config.OpenAPIPath = "/openapi"
	config.DocsPath = ""
	config.CreateHooks = nil
	config.OnAddOperation = append(config.OnAddOperation, describe)
	return config
}

func (s *server) register(api huma.API) {
	s.registerAbout(api)
	s.registerChoices(api)
	s.registerComputeEdit(api)
	s.registerComputeTurnarounds(api)
	s.registerComputeImport(api)
	s.registerComputeMap(api)
	s.registerComputeChord(api)
	s.registerComputeChange(api)
	s.registerComputeNearby(api)
	s.registerComputeApproaches(api)
	s.registerComputePath(api)
	s.registerComputeFunctions(api)
	s.registerComputeRun(api)
	s.registerComputeLine(api)
	s.registerComputeMoves(api)
	s.registerComputeVerdict(api)
	s.registerComputeLick(api)
	s.registerComputeLickFile(api)
	s.registerComputeVariants(api)
	s.registerComputeExercise(api)
	s.registerComputeEtude(api)
	s.registerComputePerformance(api)
	s.registerComputeRoutines(api)
	s.registerComputePass(api)
	s.registerComputeMIDI(api)
	s.registerBands(api)
	s.registerCharts(api)
	s.registerSheets(api)
	s.registerLesson(api)
	s.registerPlayer(api)
	s.registerLicks(api)
	s.registerFindLicks(api)
	s.registerLines(api)
	s.registerComputeSolo(api)
	s.registerSolos(api)
	s.registerComputeQuestion(api)
	s.registerComputeLesson(api)
	s.registerComputeTimed(api)
	s.registerPhrases(api)
	s.registerReviews(api)
	s.registerPractice(api)
	s.registerLog(api)
	s.registerCalendar(api)
	s.registerSessions(api)
	s.registerExercises(api)
	s.registerComputeStandIn(api)
	s.registerTakes(api)
	s.registerRecordings(api)
	s.registerRecordingMends(api)
	s.registerBackups(api)
	s.registerBundles(api)
	s.registerAccess(api)
}

// logged writes one line for each request.
func logged(log *slog.Logger) gin.HandlerFunc {
	return func(c *gin.Context) {
		start := time.Now()
		c.Next()
		level := slog.LevelDebug
		if c.Writer.Status() >= http.StatusInternalServerError {
			level = slog.LevelError
		}
		facts := []any{"method", c.Request.Method, "path", c.Request.URL.Path, "status", c.Writer.Status(), "took", time.Since(start)}
		if len(c.Errors) > 0 {
			facts = append(facts, "cause", strings.Join(c.Errors.Errors(), "; "))
		}
		log.Log(c, level, "request", facts...)
	}
}

// recovered turns a panic into a plain problem, so that one bad request never
// takes the server with it.
func recovered(log *slog.Logger) gin.HandlerFunc {
	return gin.CustomRecoveryWithWriter(nil, func(c *gin.Context, what any) {
		log.Error("panic", "path", c.Request.URL.Path, "what", what, "stack", string(debug.Stack()))
		refuse(c, http.StatusInternalServerError, faultWords)
	})
}
