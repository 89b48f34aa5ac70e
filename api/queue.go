package api

import (
	"context"
	"net/http"
	"regexp"
	"runtime"
	"strings"
	"time"

	"github.com/gin-gonic/gin"
)

// longPaths are the requests that may compute for long: plans, and what hears or makes sound, reads and writes bundles.
var longPaths = regexp.MustCompile(`^/api/(compute/solo(/whole|/etude)?|compute/take/(standin/sound|verdict)|recordings/[^/]+/(take|punch|leak)|bundles?(/.*)?)$`)

// How many of them compute at once, how many wait, and how long each may take (our choice: one core stays free for what
// is short; who waits for more than that has long gone).
const (
	mostWaiting = 64
	longest     = 2 * time.Minute
	// longestFile is for what hears a recording of an hour, or reads a bundle of many.
	longestFile = 30 * time.Minute
	// toAnswer is left for the answer after the computation.
	toAnswer = time.Minute
)

// boundOf is how long a computation may take.
func boundOf(path string) time.Duration {
	if strings.HasPrefix(path, "/api/compute/") {
		return longest
	}
	return longestFile
}

func longAtOnce() int { return max(1, runtime.GOMAXPROCS(0)-1) }

// queued lets so many long computations run at once; the others wait for their turn, as long as somebody waits for them.
// A computation that goes on for too long is told to stop.
func queued(atOnce int) gin.HandlerFunc {
	slots, queue := make(chan struct{}, atOnce), make(chan struct{}, mostWaiting)
	return func(ctx *gin.Context) {
		if !longPaths.MatchString(ctx.Request.URL.Path) {
			ctx.Next()
			return
		}
		select {
		case queue <- struct{}{}:
		default:
			ctx.Header("Retry-After", "5")
			refuse(ctx, http.StatusServiceUnavailable, "Undaris computes as much as it can at the moment: try again in a few seconds")
			return
		}
		select {
		case slots <- struct{}{}:
			<-queue
		case <-ctx.Request.Context().Done():
			<-queue
			refuse(ctx, http.StatusServiceUnavailable, "nobody waits for this any more")
			return
		}
		defer func() { <-slots }()
		bound := boundOf(ctx.Request.URL.Path)
		// The server gives up on an answer sooner than that; a writer that knows no deadline, as that of a test, has none.
		_ = http.NewResponseController(ctx.Writer).SetWriteDeadline(time.Now().Add(bound + toAnswer))
		bounded, cancel := context.WithTimeout(ctx.Request.Context(), bound)
		defer cancel()
		ctx.Request = ctx.Request.WithContext(yielding{bounded})
		ctx.Next()
	}
}

// yielding is a context of a long computation. Whenever that asks whether anybody still waits for it, what else is to be
// answered has its turn first: else a short question would wait until the scheduler takes the processor away.
type yielding struct{ context.Context }

// Err is that of the context.
func (y yielding) Err() error {
	runtime.Gosched()
	return y.Context.Err()
}
