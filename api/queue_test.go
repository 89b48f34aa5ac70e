package api

import (
	"context"
	"net/http"
	"net/http/httptest"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/gin-gonic/gin"
	"github.com/stretchr/testify/assert"
)

// Of what computes for long so many run at once and the others wait; what is short passes by; who goes away waits no
// more, and beyond so many nobody is let in.
func TestLongComputationsWaitForTheirTurn(t *testing.T) {
	gin.SetMode(gin.ReleaseMode)
	router := gin.New()
	running, most := atomic.Int64{}, atomic.Int64{}
	free := make(chan struct{})
	router.Use(queued(2))
	router.POST("/api/compute/solo", func(ctx *gin.Context) {
		most.Store(max(most.Load(), running.Add(1)))
		select {
		case <-free:
			ctx.Status(http.StatusOK)
		case <-ctx.Request.Context().Done():
			ctx.Status(http.StatusTeapot)
		}
		running.Add(-1)
	})
	router.POST("/api/compute/chord", func(ctx *gin.Context) { ctx.Status(http.StatusOK) })
	ask := func(ctx context.Context, path string) int {
		response := httptest.NewRecorder()
		router.ServeHTTP(response, httptest.NewRequestWithContext(ctx, "POST", path, nil))
		return response.Code
	}
	var all sync.WaitGroup
	answers := [8]int{}
	for n := range answers {
		all.Go(func() { answers[n] = ask(t.Context(), "/api/compute/solo") })
	}
	assert.Eventually(t, func() bool { return running.Load() == 2 }, 5*time.Second, time.Millisecond)
	assert.Equal(t, http.StatusOK, ask(t.Context(), "/api/compute/chord"), "what is short does not wait")
	gone, leave := context.WithCancel(t.Context())
	var left sync.WaitGroup
	for range mostWaiting + 6 {
		left.Go(func() { assert.Equal(t, http.StatusServiceUnavailable, ask(gone, "/api/compute/solo")) })
	}
	assert.Eventually(t, func() bool {
		short, cancel := context.WithTimeout(t.Context(), 20*time.Millisecond)
		defer cancel()
		response := httptest.NewRecorder()
		router.ServeHTTP(response, httptest.NewRequestWithContext(short, "POST", "/api/compute/solo", nil))
		if response.Header().Get("Retry-After") != "" {
			return true
		}
		// It has taken the place of one that was sent away meanwhile.
		left.Go(func() { assert.Equal(t, http.StatusServiceUnavailable, ask(gone, "/api/compute/solo")) })
		return false
	}, 10*time.Second, 5*time.Millisecond, "the queue is full")
	leave()
	left.Wait()
	close(free)
	all.Wait()
	for _, answer := range answers {
		assert.Equal(t, http.StatusOK, answer)
	}
	assert.Equal(t, int64(2), most.Load())
}

func TestWhichRequestsAreLong(t *testing.T) {
	for path, long := range map[string]bool{
		"/api/compute/solo": true, "/api/compute/solo/whole": true, "/api/compute/solo/chorus": false, "/api/compute/chord": false, "/api/recordings/20260101-1/take": true,
		"/api/recordings/20260101-1/sound": false, "/api/bundle": true, "/api/bundles/1/import": true, "/api/charts": false,
	} {
		assert.Equal(t, long, longPaths.MatchString(path), path)
	}
	assert.Equal(t, longest, boundOf("/api/compute/solo"))
	assert.Equal(t, longestFile, boundOf("/api/recordings/1/take"), "an hour of sound is heard in some minutes")
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
