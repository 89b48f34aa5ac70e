package api

import (
	"context"
	"errors"
	"io"
	"net/http"
	"regexp"
	"runtime"
	"sync"
	"time"

	"github.com/gin-gonic/gin"
)

// filePaths are the requests that read or write whole files: recordings of an hour, bundles, copies of everything.
var filePaths = regexp.MustCompile(`^/api/(recordings/[^/]+/(sound|take|punch|leak)|bundles?(/.*)?|backups(/.*)?)$`)

// How many long computations go on at once, how many wait, and how long each may take (our choice: one core stays free for
// what is short; who waits for more than that has long gone).
const (
	// shortWork is how long a request may compute before it needs a slot.
	shortWork   = 40 * time.Millisecond
	mostWaiting = 64
	longest     = 2 * time.Minute
	// longestFile is for what hears a recording of an hour, or reads a bundle of many.
	longestFile = 30 * time.Minute
	// answerReserve is left for the answer after the computation.
	answerReserve = time.Minute
)

func longAtOnce() int { return max(1, runtime.GOMAXPROCS(0)-1) }

// errBusy is why a computation ended that found no place to wait.
var errBusy = errors.New("undaris computes as much as it can at the moment")

// queued lets so many long computations go on at once. What is long is known by what it costs, and by nothing else: a
// computation that is not done after shortWork needs one of the slots, and waits for it as long as somebody waits for the
// answer. It is asked whenever it asks whether anybody does. While a request is read, and while its answer is sent, it
// has no slot. A computation that goes on for too long is told to stop.
func queued(atOnce int) gin.HandlerFunc {
	slots, queue := make(chan struct{}, atOnce), make(chan struct{}, mostWaiting)
	return func(ctx *gin.Context) {
		bound := longest
		if filePaths.MatchString(ctx.Request.URL.Path) {
			bound = longestFile
		}
		bounded, cancel := context.WithCancelCause(ctx.Request.Context())
		defer cancel(nil)
		timed, stop := context.WithTimeout(bounded, bound)
		defer stop()
		turn := &turn{Context: timed, slots: slots, queue: queue, cancel: cancel}
		defer turn.end()
		// The server gives up on an answer sooner than that; a writer that knows no deadline, as that of a test, has none.
		_ = http.NewResponseController(ctx.Writer).SetWriteDeadline(time.Now().Add(bound + answerReserve))
		ctx.Request = ctx.Request.WithContext(turn)
		ctx.Request.Body = &timedBody{ReadCloser: ctx.Request.Body, turn: turn}
		ctx.Writer = &endingWriter{ctx.Writer, turn}
		ctx.Next()
	}
}

// turn is the context of a request that may compute for long.
type turn struct {
	context.Context
	slots, queue chan struct{}
	cancel       context.CancelCauseFunc
	mutex        sync.Mutex
	// begun is when the computation began: when the request was read.
	begun       time.Time
	held, ended bool
}

// Err is that of the context. A computation asks it now and then whether anybody still waits for it; if it is long by
// then, it waits for a slot here.
func (t *turn) Err() error {
	if err := t.Context.Err(); err != nil {
		return t.cause(err)
	}
	t.mutex.Lock()
	defer t.mutex.Unlock()
	if t.held {
		// What else is to be answered has its turn first: else a short question would wait until the scheduler takes the
		// processor away.
		runtime.Gosched()
		return nil
	}
	if t.begun.IsZero() {
		t.begun = time.Now()
	}
	if t.ended || time.Since(t.begun) < shortWork {
		return nil
	}
	select {
	case t.queue <- struct{}{}:
	default:
		t.cancel(errBusy)
		return errBusy
	}
	defer func() { <-t.queue }()
	select {
	case t.slots <- struct{}{}:
		t.held = true
		return nil
	case <-t.Done():
		return t.cause(t.Context.Err())
	}
}

// cause is errBusy where that is why the context ended.
func (t *turn) cause(err error) error {
	if cause := context.Cause(t.Context); errors.Is(cause, errBusy) {
		return errBusy
	}
	return err
}

// restart begins to count anew: what was until now was no computing.
func (t *turn) restart() {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	if !t.held {
		t.begun = time.Now()
	}
}

// end gives the slot back.
func (t *turn) end() {
	t.mutex.Lock()
	defer t.mutex.Unlock()
	t.ended = true
	if t.held {
		t.held = false
		<-t.slots
	}
}

// endingWriter gives the slot back when the answer begins.
type endingWriter struct {
	gin.ResponseWriter
	turn *turn
}

func (w *endingWriter) WriteHeader(status int) {
	w.turn.end()
	w.ResponseWriter.WriteHeader(status)
}

func (w *endingWriter) Write(p []byte) (int, error) {
	w.turn.end()
	return w.ResponseWriter.Write(p)
}

// Unwrap is for deadlines.
func (w *endingWriter) Unwrap() http.ResponseWriter { return w.ResponseWriter }

// timedBody is the body of a request: the computation begins when it is read.
type timedBody struct {
	io.ReadCloser
	turn *turn
}

func (b *timedBody) Read(p []byte) (int, error) {
	n, err := b.ReadCloser.Read(p)
	b.turn.restart()
	return n, err
}
