package e2e

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

// mostScripts is how many bytes of scripts a view of a tune may fetch, as they come over the line.
const mostScripts = 150_000

// No view of a tune fetches more scripts than its frame and what it shows need; the engraver of staves is fetched by whoever
// looks at a staff.
func TestScriptsOfEachStepAreSmall(t *testing.T) {
	p := openPage(t, demo(t), "/data")
	for _, step := range []string{"chart", "map", "change", "licks", "solo", "play", "practice", "exercises", "takes"} {
		p.Go("/tunes/1/" + step)
		p.Until("the step", "document.querySelector('main section, main .practice')")
		p.Idle()
		fetched := js[map[string]int](p, `Object.fromEntries(performance.getEntriesByType('resource').filter(e => new URL(e.name).pathname.endsWith('.js'))
			.map(e => [new URL(e.name).pathname.replace(/.*\//, '').replace(/-[^-]*$/, ''), e.encodedBodySize]))`)
		sum := 0
		for _, size := range fetched {
			sum += size
		}
		t.Logf("%s: %d kB in %d files", step, sum/1000, len(fetched))
		assert.Greater(t, sum, 20_000, "%s: they were counted", step)
		assert.LessOrEqual(t, sum, mostScripts, "%s: %v", step, fetched)
		assert.NotContains(t, fetched, "StaffView", step)
	}
}
