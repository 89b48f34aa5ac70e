package e2e

import (
	"os"
	"testing"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

func shotTo(t *testing.T, p *Page, name string) {
	shot, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	require.NoError(t, err)
	require.NoError(t, os.WriteFile("/tmp/"+name+".png", shot, 0o644))
}

func TestTmp(t *testing.T) {
	p := openPage(t, demo(t), "/")
	p.Sees("due today")
	p.Idle()
	shotTo(t, p, "pr0")
	p.Go("/tunes/1/practice")
	p.Sees("Where you are weakest", "Warm up")
	p.Idle()
	shotTo(t, p, "pr1")
	p.Press(" ")
	p.Sees("Go on")
	p.Press(" ")
	p.Sees("card 1 of")
	p.Press(" ")
	p.Sees("Play it round")
	p.Idle()
	p.Press("p")
	p.Press("c")
	p.Press("c")
	p.Idle()
	shotTo(t, p, "pr3")
	p.Press("p")
	p.Press(" ")
	p.Sees("Open it in Play")
	p.Idle()
	shotTo(t, p, "pr4")
	p.Click("Open it in Play")
	p.Sees("Back to Practice")
	p.Idle()
	shotTo(t, p, "pr5")
}
