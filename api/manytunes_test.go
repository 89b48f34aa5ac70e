package api

import (
	"flag"
	"fmt"
	"log/slog"
	"path/filepath"
	"runtime"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/chart/charttest"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

var manyTunes = flag.Int("tunes", 5000, "how many tunes the library has that Practice begins over")

// BenchmarkFirstPractice is the first answer of Practice and of the start page after a start, over a library of many
// tunes, 400 of them different, and the most memory that it takes beside what was in use before.
func BenchmarkFirstPractice(b *testing.B) {
	path := filepath.Join(b.TempDir(), "many.db")
	data, err := store.Open(path)
	require.NoError(b, err)
	defer func() { _ = data.Close() }()
	l := documents.New(data, slog.New(slog.DiscardHandler))
	drawn := rapid.Custom(func(t *rapid.T) chart.Chart { return charttest.Song(t, 16) })
	const different = 400
	require.NoError(b, l.Together(b.Context(), func(l *documents.Library) error {
		for n := range *manyTunes {
			if n >= different {
				break
			}
			if _, err := documents.Charts.Create(b.Context(), l, document.ChartOf(drawn.Example(n)), 0); err != nil {
				return err
			}
		}
		return nil
	}))
	_, err = outside(b, path).Exec(fmt.Sprintf(`WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < %d)
		INSERT INTO documents (uid, kind, name, body, summary, version, created_at, updated_at, practised_at)
		SELECT 'uid' || i, 'chart', d.name, d.body, d.summary, 1, d.created_at, d.updated_at, d.practised_at FROM n, documents d WHERE d.id = 1 + i %% %d`, max(1, *manyTunes-different), different))
	require.NoError(b, err)
	for name, asked := range map[string]string{"deck": "/api/practice/deck", "plan": "/api/practice/plan?minutes=20", "tunes": "/api/charts?limit=60"} {
		b.Run(name, func(b *testing.B) {
			most := uint64(0)
			for b.Loop() {
				b.StopTimer()
				c := client{t: b, http: New(Config{Store: data, Version: "test", Loopback: true, Log: slog.New(slog.DiscardHandler)}), host: "127.0.0.1:8380"}
				runtime.GC()
				stop := watchHeap(&most)
				b.StartTimer()
				require.Equal(b, 200, c.do("GET", asked, nil).Code)
				stop()
			}
			b.ReportMetric(float64(most)/(1<<20), "MB-most")
		})
	}
}

// watchHeap notes the most memory in use beside what is in use now, until what it returns is called.
func watchHeap(most *uint64) (stop func()) {
	var done atomic.Bool
	finished := make(chan struct{})
	inUse := func() uint64 {
		m := runtime.MemStats{}
		runtime.ReadMemStats(&m)
		return m.HeapAlloc
	}
	before := inUse()
	go func() {
		defer close(finished)
		for !done.Load() {
			if now := inUse(); now > before && now-before > *most {
				*most = now - before
			}
			time.Sleep(2 * time.Millisecond)
		}
	}()
	return func() { done.Store(true); <-finished }
}
