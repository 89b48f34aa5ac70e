package api

import (
	"context"
	"io"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// computing goes on until it is told to stop or free is closed, and asks all the time whether anybody waits for it. It
// counts those that go on after they became long.
func computing(free <-chan struct{}, long, most *atomic.Int64) gin.HandlerFunc {
	return func(c *gin.Context) {
		ctx, begun, isLong := c.Request.Context(), time.Now(), false
		defer func() {
			if isLong {
				long.Add(-1)
			}
		}()
		for {
			if err := ctx.Err(); err != nil {
				c.String(http.StatusServiceUnavailable, err.Error())
				return
			}
			if !isLong && time.Since(begun) > 2*shortWork {
				isLong = true
				most.Store(max(most.Load(), long.Add(1)))
			}
			select {
			case <-free:
				c.Status(http.StatusOK)
				return
			case <-time.After(time.Millisecond):
			}
		}
	}
}

// Of what computes for long so many go on at once and the others wait, whatever they are called; what is short passes
// by; who goes away waits no more, and beyond so many nobody waits.
func TestLongComputationsWaitForTheirTurn(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	long, most := atomic.Int64{}, atomic.Int64{}
	free := make(chan struct{})
	router.Use(queued(2))
	router.POST("/long", computing(free, &long, &most))
	router.POST("/short", func(c *gin.Context) {
		if c.Request.Context().Err() == nil {
			c.Status(http.StatusOK)
		}
	})
	ask := func(ctx context.Context, path string) (int, string) {
		response := httptest.NewRecorder()
		router.ServeHTTP(response, httptest.NewRequestWithContext(ctx, "POST", path, nil))
		return response.Code, response.Body.String()
	}
	var all, left sync.WaitGroup
	answers := [8]int{}
	for n := range answers {
		all.Go(func() { answers[n], _ = ask(t.Context(), "/long") })
	}
	require.Eventually(t, func() bool { return long.Load() == 2 }, 10*time.Second, time.Millisecond)
	status, _ := ask(t.Context(), "/short")
	assert.Equal(t, http.StatusOK, status, "what is short does not wait")
	gone, leave := context.WithCancel(t.Context())
	busy := atomic.Int64{}
	for range mostWaiting + 6 {
		left.Go(func() {
			status, said := ask(gone, "/long")
			assert.Equal(t, http.StatusServiceUnavailable, status)
			if said == errBusy.Error() {
				busy.Add(1)
			}
		})
	}
	require.Eventually(t, func() bool { return busy.Load() > 0 }, 10*time.Second, 5*time.Millisecond, "the queue is full")
	leave()
	left.Wait()
	close(free)
	all.Wait()
	for _, answer := range answers {
		assert.Equal(t, http.StatusOK, answer)
	}
	assert.Equal(t, int64(2), most.Load())
}

// Neither a request that comes slowly nor an answer that is taken slowly holds a slot.
func TestSlowClientsHoldNoSlot(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.Use(queued(1))
	work := func(c *gin.Context) {
		_, _ = io.Copy(io.Discard, c.Request.Body)
		for begun := time.Now(); time.Since(begun) < 2*shortWork; time.Sleep(time.Millisecond) {
			if c.Request.Context().Err() != nil {
				return
			}
		}
	}
	taken := make(chan struct{})
	router.POST("/download", func(c *gin.Context) {
		work(c)
		c.Status(http.StatusOK)
		_, _ = c.Writer.WriteString("the beginning")
		<-taken
	})
	router.POST("/compute", func(c *gin.Context) {
		work(c)
		c.Status(http.StatusOK)
	})
	slow, send := io.Pipe()
	var others sync.WaitGroup
	for _, request := range []*http.Request{
		httptest.NewRequestWithContext(t.Context(), "POST", "/download", nil), httptest.NewRequestWithContext(t.Context(), "POST", "/compute", slow),
	} {
		others.Go(func() { router.ServeHTTP(httptest.NewRecorder(), request) })
	}
	time.Sleep(4 * shortWork)
	response := httptest.NewRecorder()
	router.ServeHTTP(response, httptest.NewRequestWithContext(t.Context(), "POST", "/compute", strings.NewReader("{}")))
	assert.Equal(t, http.StatusOK, response.Code)
	close(taken)
	require.NoError(t, send.Close())
	others.Wait()
}

// A long computation may answer after the time that the server gives to others.
func TestALongComputationMayAnswerLate(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	router.Use(queued(1))
	router.POST("/api/compute/solo", func(ctx *gin.Context) {
		time.Sleep(300 * time.Millisecond)
		ctx.String(http.StatusOK, "planned")
	})
	server := httptest.NewUnstartedServer(router)
	server.Config.WriteTimeout = 100 * time.Millisecond
	server.Start()
	defer server.Close()
	answer, err := http.Post(server.URL+"/api/compute/solo", "application/json", nil)
	if assert.NoError(t, err) {
		assert.Equal(t, http.StatusOK, answer.StatusCode)
		assert.NoError(t, answer.Body.Close())
	}
}
