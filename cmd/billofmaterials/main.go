// Command billofmaterials writes what a release is made of as a CycloneDX bill of materials: the Go modules that a built
// program says are in it, and the packages of the page from its lock file. It reads no clock and no network, so that the
// same release has the same bill.
package main

import (
	"debug/buildinfo"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strings"
)

// bill is a bill of materials (CycloneDX 1.5).
type bill struct {
	Format      string      `json:"bomFormat"`
	SpecVersion string      `json:"specVersion"`
	Version     int         `json:"version"`
	Metadata    metadata    `json:"metadata"`
	Components  []component `json:"components"`
}

type metadata struct {
	Component component `json:"component"`
}

type component struct {
	Type     string    `json:"type"`
	Name     string    `json:"name"`
	Version  string    `json:"version"`
	PURL     string    `json:"purl,omitempty"`
	Licenses []licence `json:"licenses,omitempty"`
}

type licence struct {
	Expression string `json:"expression"`
}

func main() {
	if err := run(os.Args[1:], os.Stdout); err != nil {
		fmt.Fprintln(os.Stderr, "billofmaterials:", err)
		os.Exit(1)
	}
}

func run(args []string, out io.Writer) error {
	if len(args) != 3 {
		return errors.New("give the built program, web/package-lock.json and the version")
	}
	b := bill{Format: "CycloneDX", SpecVersion: "1.5", Version: 1, Metadata: metadata{component{Type: "application", Name: "undaris", Version: args[2]}}}
	built, err := buildinfo.ReadFile(args[0])
	if err != nil {
		return err
	}
	b.Components = append(b.Components, component{Type: "library", Name: "std", Version: built.GoVersion, PURL: "pkg:golang/std@" + built.GoVersion})
	for _, module := range built.Deps {
		if module.Replace != nil {
			module = module.Replace
		}
		b.Components = append(b.Components, component{Type: "library", Name: module.Path, Version: module.Version, PURL: "pkg:golang/" + module.Path + "@" + module.Version})
	}
	text, err := os.ReadFile(args[1])
	if err != nil {
		return err
	}
	packages, err := packagesOf(text)
	if err != nil {
		return err
	}
	b.Components = append(b.Components, packages...)
	encoder := json.NewEncoder(out)
	encoder.SetIndent("", " ")
	return encoder.Encode(b)
}

// packagesOf are the packages of a lock file that the page is made of, not those it is only built with.
func packagesOf(lock []byte) ([]component, error) {
	read := struct {
		Packages map[string]struct {
			Version string
			License string
			Dev     bool
		}
	}{}
	if err := json.Unmarshal(lock, &read); err != nil {
		return nil, fmt.Errorf("the lock file cannot be read: %w", err)
	}
	all := []component{}
	for path, one := range read.Packages {
		at := strings.LastIndex(path, "node_modules/")
		if at < 0 || one.Dev {
			continue
		}
		name := path[at+len("node_modules/"):]
		c := component{Type: "library", Name: name, Version: one.Version, PURL: "pkg:npm/" + strings.Replace(name, "@", "%40", 1) + "@" + one.Version}
		if one.License != "" {
			c.Licenses = []licence{{one.License}}
		}
		all = append(all, c)
	}
	slices.SortFunc(all, func(a, b component) int { return strings.Compare(a.PURL, b.PURL) })
	return slices.CompactFunc(all, func(a, b component) bool { return a.PURL == b.PURL }), nil
}
