// Command words lists the messages that the core and the use cases can say, as JSON: the
// templates of package message and of what passes one on, and the names of the tables. It is
// run at the root of the module; `make words` keeps its list for the catalogues of the
// interface.
package main

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"maps"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode"

	"allcoats/core/base/message"
)

// sayers are the functions and methods that say their arguments of these numbers: as a
// template, or as words whose signs of per cent are no verbs.
var sayers = map[string]struct{ templates, words []int }{
	"message.Of": {templates: []int{0}}, "message.Fill": {templates: []int{0}}, "message.Lit": {words: []int{0}},
	"fielderr.At": {templates: []int{1}},
	".Add":        {templates: []int{1}}, ".Warn": {templates: []int{0}}, ".Step": {words: []int{0, 1, 4}},
	".StepOf": {words: []int{0}}, ".In": {words: []int{0}},
}

// fields are those of tables and of what is made for the interface that hold words.
var fields = map[string]bool{"Name": true, "Told": true, "Missed": true, "Of": true, "said": true, "Mend": true,
	"Looks": true, "Remedy": true, "Action": true, "Label": true, "Why": true, "What": true, "Note": true}

// identifier is what no person reads: "touch-dry", "rhMaxPct", ".x1".
var identifier = regexp.MustCompile(`^[a-z]+[-A-Z_][\w-]*$|^[a-z]?$|^\W?[a-z]\d?$`)

// A reader gathers the messages of one package.
type reader struct {
	found map[string]bool
	// own are functions of the package that pass a template on, with the number of its argument; those in
	// a function by their file.
	own    map[string][]int
	file   string
	consts map[string]string
}

func main() {
	all := map[string][]string{} // by file
	for _, root := range []string{"core", "app", "calc", "formats"} {
		err := filepath.WalkDir(root, func(dir string, d fs.DirEntry, err error) error {
			if err != nil || !d.IsDir() {
				return err
			}
			return read(dir, all)
		})
		if err != nil {
			fmt.Fprintln(os.Stderr, "words:", err)
			os.Exit(1)
		}
	}
	out := json.NewEncoder(os.Stdout)
	out.SetEscapeHTML(false)
	out.SetIndent("", " ")
	if err := out.Encode(all); err != nil {
		fmt.Fprintln(os.Stderr, "words:", err)
		os.Exit(1)
	}
}

// read lists the messages of every file of the package in a folder, in order.
func read(dir string, all map[string][]string) error {
	paths, err := filepath.Glob(filepath.Join(dir, "*.go"))
	if err != nil {
		return err
	}
	r := reader{own: map[string][]int{}, consts: map[string]string{}}
	var (
		files []*ast.File
		names []string
	)
	for _, path := range paths {
		if strings.HasSuffix(path, "_test.go") {
			continue
		}
		file, err := parser.ParseFile(token.NewFileSet(), path, nil, 0)
		if err != nil {
			return err
		}
		files, names = append(files, file), append(names, path)
		ast.Inspect(file, r.constants)
	}
	for n := -1; n != len(r.own); { // until no more functions pass one on
		n = len(r.own)
		for i, file := range files {
			r.file = names[i]
			ast.Inspect(file, r.passes)
		}
	}
	for i, file := range files {
		r.found, r.file = map[string]bool{}, names[i]
		ast.Inspect(file, r.words)
		if len(r.found) > 0 {
			all[filepath.ToSlash(names[i])] = slices.Sorted(maps.Keys(r.found))
		}
	}
	return nil
}

// constants notes the string constants of the package.
func (r reader) constants(n ast.Node) bool {
	if v, ok := n.(*ast.ValueSpec); ok {
		for i, name := range v.Names {
			if i < len(v.Values) {
				if text, ok := r.text(v.Values[i]); ok {
					r.consts[name.Name] = text
				}
			}
		}
	}
	return true
}

// text is a string that is known before the program runs.
func (r reader) text(e ast.Expr) (string, bool) {
	switch e := e.(type) {
	case *ast.BasicLit:
		text, err := strconv.Unquote(e.Value)
		return text, err == nil && e.Kind == token.STRING
	case *ast.Ident:
		text, ok := r.consts[e.Name]
		return text, ok
	case *ast.BinaryExpr:
		a, known := r.text(e.X)
		b, also := r.text(e.Y)
		return a + b, known && also && e.Op == token.ADD
	}
	return "", false
}

// called names what a call calls.
func called(c *ast.CallExpr) (name, method string) {
	switch f := c.Fun.(type) {
	case *ast.Ident:
		return f.Name, ""
	case *ast.SelectorExpr:
		if x, ok := f.X.(*ast.Ident); ok {
			name = x.Name + "." + f.Sel.Name
		}
		return name, "." + f.Sel.Name
	}
	return "", ""
}

// said are the arguments of a call that it says.
func (r reader) said(c *ast.CallExpr) (templates, words []int) {
	name, method := called(c)
	s, ok := sayers[name]
	if !ok {
		s = sayers[method]
	}
	own := r.own[method]
	if method == "" {
		own = append(slices.Clone(r.own[name]), r.own[r.file+" "+name]...)
	}
	return append(slices.Clone(s.templates), own...), s.words
}

// passes notes functions that say a parameter of theirs.
func (r reader) passes(n ast.Node) bool {
	name, kind, body := "", (*ast.FuncType)(nil), (*ast.BlockStmt)(nil)
	switch f := n.(type) {
	case *ast.FuncDecl:
		name, kind, body = f.Name.Name, f.Type, f.Body
		if f.Recv != nil {
			name = "." + name
		}
	case *ast.AssignStmt:
		lit, ok := f.Rhs[0].(*ast.FuncLit)
		id, named := f.Lhs[0].(*ast.Ident)
		if !ok || !named {
			return true
		}
		name, kind, body = r.file+" "+id.Name, lit.Type, lit.Body
	default:
		return true
	}
	number := map[string]int{}
	i := 0
	for _, p := range kind.Params.List {
		for _, id := range p.Names {
			number[id.Name] = i
			i++
		}
	}
	if body == nil {
		return true
	}
	ast.Inspect(body, func(n ast.Node) bool {
		c, ok := n.(*ast.CallExpr)
		if !ok {
			return true
		}
		templates, words := r.said(c)
		for _, at := range append(templates, words...) {
			if at >= len(c.Args) {
				continue
			}
			if id, ok := c.Args[at].(*ast.Ident); ok {
				if k, mine := number[id.Name]; mine && !slices.Contains(r.own[name], k) {
					r.own[name] = append(r.own[name], k)
				}
			}
		}
		return true
	})
	return true
}

// words notes what is said.
func (r reader) words(n ast.Node) bool {
	switch n := n.(type) {
	case *ast.CallExpr:
		templates, words := r.said(n)
		for _, at := range templates {
			if at < len(n.Args) {
				r.note(n.Args[at], false)
			}
		}
		for _, at := range words {
			if at < len(n.Args) {
				r.note(n.Args[at], true)
			}
		}
	case *ast.KeyValueExpr:
		if id, ok := n.Key.(*ast.Ident); ok && fields[id.Name] {
			r.note(n.Value, true)
		}
	case *ast.CompositeLit: // a row of a table, told by its place
		for _, e := range n.Elts {
			if row, ok := e.(*ast.CompositeLit); ok && row.Type == nil {
				for _, v := range row.Elts {
					r.note(v, false)
				}
			} else if kv, ok := e.(*ast.KeyValueExpr); ok {
				if _, named := kv.Key.(*ast.Ident); named {
					r.note(kv.Value, true)
				}
			}
		}
	case *ast.ValueSpec: // a kind that is its own name
		if _, ok := n.Type.(*ast.Ident); ok {
			for _, v := range n.Values {
				r.note(v, true)
			}
		}
	}
	return true
}

func (r reader) note(e ast.Expr, plain bool) {
	text, ok := r.text(e)
	if !ok || !strings.ContainsFunc(text, unicode.IsLetter) {
		return
	}
	if plain {
		text = strings.ReplaceAll(text, "%", "%%")
	}
	if key := message.Key(text); key != "" && !identifier.MatchString(key) {
		r.found[key] = true
	}
}
