package main

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
)

// mutant is a file with one change.
type mutant struct {
	file    string
	line    int
	from    string
	to      string
	changed []byte
}

func (m mutant) String() string { return fmt.Sprintf("%s:%d: %s → %s", m.file, m.line, m.from, m.to) }

// opposite is what an operator is changed to.
var opposite = map[token.Token]token.Token{
	token.LSS: token.LEQ, token.LEQ: token.LSS, token.GTR: token.GEQ, token.GEQ: token.GTR, token.EQL: token.NEQ, token.NEQ: token.EQL,
	token.LAND: token.LOR, token.LOR: token.LAND, token.ADD: token.SUB, token.SUB: token.ADD, token.MUL: token.QUO, token.QUO: token.MUL,
}

// mutantsOf lists every mutant of the files of a package, its tests left out.
func mutantsOf(folder string) ([]mutant, error) {
	files, err := filepath.Glob(filepath.Join(folder, "*.go"))
	if err != nil {
		return nil, err
	}
	files = slices.DeleteFunc(files, func(name string) bool { return strings.HasSuffix(name, "_test.go") })
	if len(files) == 0 {
		return nil, fmt.Errorf("%s has no Go files", folder)
	}
	all := []mutant{}
	for _, name := range files {
		source, err := os.ReadFile(name)
		if err != nil {
			return nil, err
		}
		of, err := mutantsIn(name, source)
		if err != nil {
			return nil, err
		}
		all = append(all, of...)
	}
	return all, nil
}

// mutantsIn lists the mutants of one file: each operator turned into its opposite, and each number made one larger.
func mutantsIn(name string, source []byte) ([]mutant, error) {
	set := token.NewFileSet()
	parsed, err := parser.ParseFile(set, name, source, 0)
	if err != nil {
		return nil, err
	}
	all := []mutant{}
	change := func(at token.Pos, from, to string) {
		place := set.Position(at)
		changed := slices.Concat(source[:place.Offset], []byte(to), source[place.Offset+len(from):])
		all = append(all, mutant{file: name, line: place.Line, from: from, to: to, changed: changed})
	}
	ast.Inspect(parsed, func(node ast.Node) bool {
		switch n := node.(type) {
		case *ast.ImportSpec:
			return false
		case *ast.BinaryExpr:
			if to, ok := opposite[n.Op]; ok && !isText(n.X) && !isText(n.Y) {
				change(n.OpPos, n.Op.String(), to.String())
			}
		case *ast.BasicLit:
			if to, ok := larger(n); ok {
				change(n.Pos(), n.Value, to)
			}
		}
		return true
	})
	return all, nil
}

// isText says whether an expression is a text in quotes: + joins it, and has no opposite.
func isText(e ast.Expr) bool {
	literal, ok := e.(*ast.BasicLit)
	return ok && literal.Kind == token.STRING
}

// larger is a number made one larger, or half as large again where it has a fraction.
func larger(n *ast.BasicLit) (string, bool) {
	switch n.Kind {
	case token.INT:
		value, err := strconv.ParseInt(n.Value, 0, 64)
		return strconv.FormatInt(value+1, 10), err == nil
	case token.FLOAT:
		value, err := strconv.ParseFloat(n.Value, 64)
		return strconv.FormatFloat(value*1.5, 'f', -1, 64), err == nil && value != 0 && value*1.5 != float64(int64(value*1.5))
	}
	return "", false
}
