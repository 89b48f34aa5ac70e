package e2e

import (
	"io"
	"net/http"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A player saves everything to a file, loses a tune, and reads the file: the tune is there again. The reading is undone,
// and a backup restored.
func TestEverythingGoesOutAndIn(t *testing.T) {
	s := demo(t)
	p := openPage(t, s, "/data")
	p.Click("Back up now")
	p.Until("the backup", "document.querySelectorAll('[aria-label=Backups] li').length >= 1")
	address := js[string](p, "document.querySelector('a.download').href")
	answer, err := http.Get(address)
	require.NoError(t, err)
	defer func() { _ = answer.Body.Close() }()
	text, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	choose := func(content string) { p.upload("everything.zip", content) }

	p.Go("/")
	p.Click("Delete Paper Lanterns")
	p.Sees("“Paper Lanterns” is deleted")
	p.Go("/data")
	p.Sees("Choose a file")
	choose(string(text))
	p.Sees("Which ones")
	row := js[string](p, "[...document.querySelectorAll('[aria-label=\"Bring it in\"] tbody tr')].find(r => r.innerText.startsWith('tunes')).innerText.replace(/\\s+/g, ' ')")
	assert.Equal(t, "tunes 1 – 5", row)
	p.Click("Read it")
	p.Sees("The file is read: 1 new")
	tunes := func() int {
		p.Go("/")
		p.Until("the tunes", "document.querySelectorAll('.tunes a').length > 2")
		return js[int](p, "[...document.querySelectorAll('.tunes a')].filter(a => a.innerText.includes('Paper Lanterns')).length")
	}
	back := js[string](p, "location.pathname + location.search")
	assert.Equal(t, 1, tunes())
	p.Go(back)
	p.Click("Undo")
	p.Sees("It is taken back")
	assert.Zero(t, tunes())

	p.Go("/data")
	p.Until("the backups", "document.querySelectorAll('[aria-label=Backups] li').length >= 3")
	p.ClickOn("the first backup", "[...document.querySelectorAll('[aria-label=Backups] li')].find(l => l.innerText.includes('on demand')).querySelector('button')")
	p.Click("Restore it")
	p.Sees("Everything is as it was on")
	assert.Equal(t, 1, tunes())

	// Read once more it brings nothing.
	p.Go("/data")
	p.Sees("Choose a file")
	choose(string(text))
	p.Sees("Everything in it is here already")
	p.Expect(422)
	choose("no bundle")
	p.Sees("is no zip file that can be read")
}
