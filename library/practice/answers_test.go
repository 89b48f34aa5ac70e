package practice

import (
	"fmt"
	"log/slog"
	"path/filepath"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"undaris/core/chart"
	"undaris/core/harmony"
	"undaris/core/practice"
	"undaris/format/document"
	"undaris/library/documents"
	"undaris/store"
)

func practised(t testing.TB) (*Practice, *store.Store, practice.Card) {
	t.Helper()
	st, err := store.Open(filepath.Join(t.TempDir(), "data.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = st.Close() })
	p := New(documents.New(st, slog.New(slog.DiscardHandler)))
	cards, err := p.Enrolled(t.Context(), Scope{EveryKey: true})
	require.NoError(t, err)
	return p, st, cards[0]
}

func cardOf(t testing.TB, st *store.Store, id string) store.Card {
	t.Helper()
	c, err := st.Card(t.Context(), id)
	require.NoError(t, err)
	return c
}

// Answers that are given at the same moment count one by one: each finds the card as the one before left it.
func TestAnswersAtTheSameMoment(t *testing.T) {
	p, st, card := practised(t)
	const many = 24
	var all sync.WaitGroup
	for n := range many {
		all.Go(func() {
			_, err := p.KeepAnswer(t.Context(), Answer{UID: fmt.Sprint("answer ", n), Card: card, At: time.Now(), Right: true, Got: 1, Of: 1, Took: time.Second})
			assert.NoError(t, err)
		})
	}
	all.Wait()
	kept := cardOf(t, st, card.ID())
	assert.Equal(t, many, kept.Answers)
	assert.Equal(t, many, kept.Reps)
	reviews, err := st.Reviews(t.Context(), "", 2*many)
	require.NoError(t, err)
	assert.Len(t, reviews, many)
}

// Whatever is sent twice, in whatever order, counts once, and is answered as the first time.
func TestAnAnswerThatIsSentTwice(t *testing.T) {
	p, st, card := practised(t)
	draws, counted := 0, 0
	rapid.Check(t, func(rt *rapid.T) {
		draws++
		at := time.Date(2026, 3, 1, 20, 0, 0, 0, time.UTC)
		sent := rapid.SliceOfN(rapid.IntRange(0, 5), 1, 14).Draw(rt, "uids")
		first := map[int]Reviewed{}
		for n, uid := range sent {
			kept, err := p.KeepAnswer(t.Context(), Answer{UID: fmt.Sprint(draws, " ", uid), Card: card, At: at.Add(time.Duration(n) * time.Hour), Right: n%3 > 0, Got: 1, Of: 1, Took: time.Second})
			require.NoError(rt, err)
			if before, known := first[uid]; known {
				require.Equal(rt, before.ID, kept.ID)
				require.Equal(rt, before.Grade, kept.Grade)
			} else {
				first[uid] = kept
			}
		}
		counted += len(first)
		require.Equal(rt, counted, cardOf(t, st, card.ID()).Answers)
	})
}

// Of very many tunes a few enrol their cards; what was asked before is asked again, whichever tune it belongs to.
func TestThousandsOfTunes(t *testing.T) {
	p, st, _ := practised(t)
	ctx := t.Context()
	l := documents.New(st, slog.New(slog.DiscardHandler))
	tune := func(n int, tonic string) documents.Info {
		d := twelveBars(t, fmt.Sprint("tune ", n), tonic)
		item, err := documents.Charts.Create(ctx, l, d, 0)
		require.NoError(t, err)
		return item.Info
	}
	for n := range 40 {
		tune(n, []string{"C", "G", "F", "Bb"}[n%4])
	}
	last := tune(40, "E")
	of, err := p.Enrolled(ctx, Scope{ChartID: last.ID})
	require.NoError(t, err)
	asked := of[3]
	_, err = p.KeepAnswer(ctx, Answer{Card: asked, At: time.Now().Add(-48 * time.Hour), Right: false, Of: 1, Took: time.Second})
	require.NoError(t, err)
	p.Forget()
	all, err := p.Enrolled(ctx, Scope{})
	require.NoError(t, err)
	assert.Less(t, len(p.enrolments.known), 40, "not every tune was read")
	work, err := p.PracticeWork(ctx, all, time.Now(), 0)
	require.NoError(t, err)
	require.Len(t, work.Due, 1)
	assert.Equal(t, asked.ID(), work.Due[0].ID())
	assert.NotEmpty(t, work.New)
}

// twelveBars is a quick change in a key.
func twelveBars(t testing.TB, title, tonic string) document.Chart {
	t.Helper()
	key, err := harmony.ParseKey(tonic, harmony.DominantMode)
	require.NoError(t, err)
	scheme, err := chart.FindScheme("quick change")
	require.NoError(t, err)
	return document.ChartOf(chart.Chart{Title: title, Key: key, Meter: chart.FourFour, Tempo: 100, Feel: chart.Straight, Swing: 1, Bars: scheme.Bars(key.Tonic, chart.FourFour)})
}
