package e2e

import (
	"os"
	"testing"
	"time"

	"github.com/chromedp/chromedp"
	"github.com/stretchr/testify/require"
)

func look(t *testing.T, p *Page, name string) {
	data, err := chromedp.Run(p.ctx, chromedp.CaptureScreenshot())
	require.NoError(t, err)
	require.NoError(t, os.WriteFile("/tmp/look-"+name+".png", data, 0o644))
}

func sized(t *testing.T, p *Page, w, h int64) {
	require.NoError(t, chromedp.Do(p.ctx, chromedp.EmulateViewport(w, h)))
	time.Sleep(400 * time.Millisecond)
}

func TestLook(t *testing.T) {
	p := openPage(t, demo(t), "/tunes/1/play")
	p.Idle()
	p.Click("drop the band")
	p.Idle()
	p.Press(" ")
	time.Sleep(9 * time.Second)
	look(t, p, "play")
	sized(t, p, 820, 1180)
	look(t, p, "tablet")
	sized(t, p, 390, 844)
	look(t, p, "phone")
}
