package store

import (
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func practiceStore(t *testing.T) *Store {
	t.Helper()
	s, err := Open(filepath.Join(t.TempDir(), "practice.db"))
	require.NoError(t, err)
	t.Cleanup(func() { _ = s.Close() })
	return s
}

var noon = time.Date(2026, 3, 1, 12, 0, 0, 0, time.UTC)

func TestReviewsAreAddedAndTakenBack(t *testing.T) {
	s, ctx := practiceStore(t), t.Context()
	card := Card{ID: "find it|C dominant|E|C7", Kind: "find it", DueAt: noon.AddDate(0, 0, 4), LastReviewAt: noon, Stability: 3.17, Difficulty: 5.3, Reps: 1, State: 1, Answers: 1, RightAnswers: 1}
	changes, err := s.CardChanges(ctx)
	require.NoError(t, err)
	first, err := s.KeepReview(ctx, Review{CardID: card.ID, Kind: card.Kind, At: noon, Grade: 3, Got: 2, OfParts: 2, TookMS: 5000}, card)
	require.NoError(t, err)
	after := card
	after.Reps, after.Answers = 2, 2
	second, err := s.KeepReview(ctx, Review{CardID: card.ID, Kind: card.Kind, At: noon.Add(time.Hour), Grade: 1, OfParts: 2, TookMS: 9000, Before: []byte("{}")}, after)
	require.NoError(t, err)
	all, err := s.Cards(ctx)
	require.NoError(t, err)
	assert.Equal(t, []Card{after}, all, "as it was kept, times to the second")
	_, err = s.KeepReview(ctx, Review{CardID: card.ID, Kind: card.Kind, At: noon, Grade: 9}, after)
	assert.Error(t, err, "no such grade")

	back := func(Review) (*Card, error) { return &card, nil }
	_, err = s.TakeBackReview(ctx, first.ID, back)
	assert.ErrorIs(t, err, ErrNotLast)
	_, err = s.TakeBackReview(ctx, 99, back)
	assert.ErrorIs(t, err, ErrNotFound)
	taken, err := s.TakeBackReview(ctx, second.ID, back)
	require.NoError(t, err)
	assert.NotNil(t, taken.TakenBackAt, "it stays, with a mark")
	one, err := s.Card(ctx, card.ID)
	require.NoError(t, err)
	assert.Equal(t, 1, one.Reps)
	reviews, err := s.Reviews(ctx, "", 10)
	require.NoError(t, err)
	require.Len(t, reviews, 1)
	medians, err := s.MedianTook(ctx, []string{"find it", "spell a chord"}, 10)
	require.NoError(t, err)
	assert.Equal(t, map[string]time.Duration{"find it": 5 * time.Second}, medians)
	now, err := s.CardChanges(ctx)
	require.NoError(t, err)
	assert.Equal(t, changes+3, now)
	fresh, err := s.CountNewSince(ctx, noon)
	require.NoError(t, err)
	assert.Equal(t, 1, fresh)
	fresh, err = s.CountNewSince(ctx, noon.Add(time.Minute))
	require.NoError(t, err)
	assert.Zero(t, fresh)
}

func TestTheLogKeepsWhatIsCorrected(t *testing.T) {
	s, ctx := practiceStore(t), t.Context()
	entry := func(uid string, day, tempo int, went string) LogEntry {
		return LogEntry{UID: uid, BeganAt: noon.AddDate(0, 0, day), OffsetMinutes: 60, Seconds: 60, Kind: "lick", Item: "Low lamp", Tempo: tempo, Goal: 80 + day, Went: went}
	}
	added, err := s.AddLog(ctx, []LogEntry{entry("a", 0, 60, ""), entry("b", 1, 70, "rough"), entry("a", 2, 90, "")})
	require.NoError(t, err)
	require.Len(t, added, 2, "a name is kept once")
	facts, err := s.ItemFacts(ctx, []string{"lick"})
	require.NoError(t, err)
	assert.Equal(t, []ItemFact{{Kind: "lick", Item: "Low lamp", LastAt: noon.AddDate(0, 0, 1), OffsetMinutes: 60, Tempo: 60, Goal: 81}}, facts, "what was rough is no clean tempo")
	corrected, err := s.CorrectLog(ctx, added[0].ID, entry("c", 0, 66, "clean"))
	require.NoError(t, err)
	_, err = s.CorrectLog(ctx, added[0].ID, entry("d", 0, 67, "clean"))
	assert.Error(t, err, "it was corrected already")
	kept, err := s.LogEntry(ctx, added[0].ID)
	require.NoError(t, err)
	assert.Equal(t, corrected.ID, *kept.ReplacedBy, "what was stays, and says what stands in its place")
	require.NoError(t, s.RemoveLog(ctx, added[1].ID))
	log, err := s.Log(ctx)
	require.NoError(t, err)
	require.Len(t, log, 1)
	assert.Equal(t, 66, log[0].Tempo)
	plain, err := s.LogFacts(ctx)
	require.NoError(t, err)
	assert.Equal(t, []LogFact{{BeganAt: noon, OffsetMinutes: 60, Seconds: 60, Kind: "lick", Item: "Low lamp", Tempo: 66, Goal: 80, Went: "clean"}}, plain)
	require.NoError(t, s.RestoreLog(ctx, added[1].ID))
	assert.ErrorIs(t, s.RemoveLog(ctx, 99), ErrNotFound)
	log, err = s.Log(ctx)
	require.NoError(t, err)
	assert.Len(t, log, 2)
}
