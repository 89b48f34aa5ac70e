package api

import (
	"fmt"
	"log/slog"
	"math/rand/v2"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"undaris/core/practice"
	"undaris/core/practice/logbook"
	"undaris/demo"
	"undaris/library/documents"
	keptpractice "undaris/library/practice"
	"undaris/store"
)

// fiveYears is a server over the demo tunes with five years of log: 300,000 answers and 9,000 entries,
// made up from a seed.
func fiveYears(b *testing.B) client {
	b.Helper()
	path := filepath.Join(b.TempDir(), "years.db")
	data, err := store.Open(path)
	require.NoError(b, err)
	l := documents.New(data, slog.New(slog.DiscardHandler))
	require.NoError(b, demo.Fill(b.Context(), l, true))
	p := keptpractice.New(l)
	cards, err := p.Enrolled(b.Context(), keptpractice.Scope{})
	require.NoError(b, err)
	every, err := p.Enrolled(b.Context(), keptpractice.Scope{EveryKey: true})
	require.NoError(b, err)
	cards = append(cards, every...)
	r := rand.New(rand.NewPCG(5, 300))
	now := time.Date(2026, 3, 1, 12, 0, 0, 0, time.UTC)
	const reviews, entries = 300_000, 9_000
	answers := make([]keptpractice.Answer, reviews)
	for n := range answers {
		at := now.Add(-time.Duration(reviews-n) * 5 * 365 * 24 * time.Hour / reviews)
		answers[n] = keptpractice.Answer{Card: cards[r.IntN(len(cards))], At: at, Right: r.Float64() < 0.8, Got: 1, Of: 1, Took: time.Duration(2+r.IntN(20)) * time.Second}
	}
	require.NoError(b, p.KeepHistory(b.Context(), answers))
	log := make([]keptpractice.LogEntry, entries)
	for n := range log {
		kind := []logbook.Kind{logbook.Cards, logbook.Lick, logbook.Tune, logbook.Free}[r.IntN(4)]
		log[n] = keptpractice.LogEntry{UID: fmt.Sprint("year ", n), Entry: logbook.Entry{
			Began: now.Add(-time.Duration(n) * 5 * time.Hour), Seconds: 60 * (1 + r.IntN(20)), Kind: kind, Item: fmt.Sprint("thing ", r.IntN(60)), Tempo: 60 + r.IntN(60), Goal: 120,
		}}
	}
	_, err = p.AddLog(b.Context(), log)
	require.NoError(b, err)
	// Opened anew, as on another day: what was written at once lies in the file, not in its log.
	require.NoError(b, data.Close())
	data, err = store.Open(path)
	require.NoError(b, err)
	b.Cleanup(func() { _ = data.Close() })
	return client{t: b, http: New(Config{Store: data, Version: "bench", Loopback: true, Log: slog.New(slog.DiscardHandler), Now: func() time.Time { return now }}), host: "127.0.0.1:8380"}
}

// BenchmarkPracticeOverFiveYears is the plan, the pictures and the deck with five years of log, and a
// question.
func BenchmarkPracticeOverFiveYears(b *testing.B) {
	c := fiveYears(b)
	for _, path := range []string{"/api/practice/plan?minutes=30", "/api/practice/pictures", "/api/practice/deck"} {
		b.Run(path, func(b *testing.B) {
			for b.Loop() {
				c.do("GET", path, nil)
			}
		})
	}
	b.Run("question", func(b *testing.B) {
		seed := uint32(0)
		for b.Loop() {
			seed++
			c.do("POST", "/api/compute/practice/question", QuestionRequest{Card: string(practice.Find) + "|C dominant|E|C7", Seed: seed})
		}
	})
}
