package main

import (
	"os/exec"
	"runtime"
)

// openBrowser shows an address in the player's browser.
func openBrowser(address string) error {
	switch runtime.GOOS {
	case "windows":
		return exec.Command("rundll32", "url.dll,FileProtocolHandler", address).Start()
	case "darwin":
		return exec.Command("open", address).Start()
	}
	return exec.Command("xdg-open", address).Start()
}
