package demo

import (
	"log/slog"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"undaris/library/documents"
	"undaris/store"
)

// The licks that every library begins with have the same uids on every machine, so that two libraries that are read into
// one do not hold them twice.
func TestTheFirstLicksHaveTheSameUIDsEverywhere(t *testing.T) {
	uids := func() map[string]string {
		st, err := store.Open(filepath.Join(t.TempDir(), "data.db"))
		require.NoError(t, err)
		defer func() { require.NoError(t, st.Close()) }()
		require.NoError(t, Fill(t.Context(), documents.New(st, slog.New(slog.DiscardHandler)), false))
		all := map[string]string{}
		require.NoError(t, st.EachDocument(t.Context(), 0, func(d store.Document) error {
			all[d.UID] = d.Name
			return nil
		}))
		return all
	}
	one := uids()
	licks, err := Licks()
	require.NoError(t, err)
	assert.Len(t, one, len(licks))
	assert.Equal(t, one, uids())
}
