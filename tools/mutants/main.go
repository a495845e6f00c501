// Mutants changes one operator, comparison or constant of the core at a time and tells whether the tests of its
// package, of all below the folder, or of what stands on it (-beside) notice: what survives is not tested. The same
// seed makes the same changes.
//
//	go run ./mutants -n 60 -seed 1 ../core
package main

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"flag"
	"fmt"
	"go/ast"
	"go/parser"
	"go/printer"
	"go/token"
	"io/fs"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"time"
)

// mutant is one change: where, from what to what, and the whole file with it.
type mutant struct {
	class, file, at, from, to string
	text                      []byte
}

// swaps are what operators become.
var swaps = map[token.Token]token.Token{
	token.ADD: token.SUB, token.SUB: token.ADD, token.MUL: token.QUO, token.QUO: token.MUL,
	token.LSS: token.LEQ, token.LEQ: token.LSS, token.GTR: token.GEQ, token.GEQ: token.GTR, token.EQL: token.NEQ,
	token.NEQ:  token.EQL,
	token.LAND: token.LOR, token.LOR: token.LAND,
}

func main() {
	n := flag.Int("n", 60, "how many changes")
	seed := flag.Uint64("seed", 1, "which")
	limit := flag.Duration("limit", 6*time.Minute,
		"how long the tests of one change may take; longer counts as noticed")
	only := flag.String("class", "", "operator, comparison or constant alone")
	beside := flag.String("beside", "allcoats/calc/... allcoats/formats allcoats/app", "the packages that stand on it")
	flag.Parse()
	if err := run(flag.Arg(0), *n, *seed, *only, tests{*limit, strings.Fields(*beside)}); err != nil {
		fmt.Fprintln(os.Stderr, "mutants:", err)
		os.Exit(1)
	}
}

// tests are how long those of one change may take, and which are run beside those below its root.
type tests struct {
	limit  time.Duration
	beside []string
}

func run(root string, n int, seed uint64, only string, by tests) error {
	if root == "" {
		return errors.New("give the folder whose code is changed")
	}
	all, err := mutants(root)
	if err != nil {
		return err
	}
	if only != "" {
		kept := all[:0]
		for _, m := range all {
			if m.class == only {
				kept = append(kept, m)
			}
		}
		all = kept
	}
	r := rand.New(rand.NewPCG(seed, 0))
	r.Shuffle(len(all), func(i, j int) { all[i], all[j] = all[j], all[i] })
	tried, caught := map[string]int{}, map[string]int{}
	for _, m := range all[:min(n, len(all))] {
		noticed, built, err := m.tested(root, by)
		if err != nil {
			return err
		}
		if !built {
			continue // such as a constant that is divided by
		}
		tried[m.class]++
		if noticed {
			caught[m.class]++
			continue
		}
		fmt.Printf("survives: %s:%s %s, %s → %s\n", m.file, m.at, m.class, m.from, m.to)
	}
	for _, class := range []string{"operator", "comparison", "constant"} {
		if tried[class] > 0 {
			fmt.Printf("%s: %d of %d noticed\n", class, caught[class], tried[class])
		}
	}
	return nil
}

// mutants are all changes of the files below root that are no tests.
func mutants(root string) (all []mutant, err error) {
	err = filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		files := token.NewFileSet()
		f, err := parser.ParseFile(files, path, nil, parser.ParseComments)
		if err != nil {
			return err
		}
		add := func(class string, at token.Pos, from, to string) {
			var b bytes.Buffer
			if printer.Fprint(&b, files, f) == nil {
				p := files.Position(at)
				all = append(all, mutant{class, path, fmt.Sprintf("%d:%d", p.Line, p.Column), from, to, b.Bytes()})
			}
		}
		ast.Inspect(f, func(n ast.Node) bool {
			switch x := n.(type) {
			case *ast.ImportSpec, *ast.TypeSpec:
				return false
			case *ast.CallExpr: // a figure within a message is no constant
				if s, ok := x.Fun.(*ast.SelectorExpr); ok && (s.Sel.Name == "Errorf" || s.Sel.Name == "Sprintf") {
					return false
				}
			case *ast.BinaryExpr:
				to, ok := swaps[x.Op]
				if lit, isText := x.X.(*ast.BasicLit); !ok || isText && lit.Kind == token.STRING {
					break
				}
				class, from := "operator", x.Op
				if x.Op.Precedence() == 3 {
					class = "comparison"
				}
				x.Op = to
				add(class, x.OpPos, from.String(), to.String())
				x.Op = from
			case *ast.BasicLit:
				v, err := strconv.ParseFloat(x.Value, 64)
				if err != nil || x.Kind != token.INT && x.Kind != token.FLOAT || v == 0 || v == 1 {
					break // counts and indices, mostly
				}
				from := x.Value
				x.Value = strconv.FormatFloat(v*1.2, 'g', -1, 64)
				if x.Kind == token.INT {
					x.Value = strconv.FormatInt(int64(v)+max(1, int64(v/5)), 10)
				}
				add("constant", x.Pos(), from, x.Value)
				x.Value = from
			}
			return true
		})
		return nil
	})
	return all, err
}

// tested runs the tests of the changed package, and if these do not notice of all that stand on it.
func (m mutant) tested(root string, by tests) (noticed, built bool, err error) {
	dir, err := os.MkdirTemp("", "mutant")
	if err != nil {
		return false, false, err
	}
	defer os.RemoveAll(dir)
	whole, err := filepath.Abs(m.file)
	if err != nil {
		return false, false, err
	}
	changed, over := filepath.Join(dir, "changed.go"), filepath.Join(dir, "overlay.json")
	raw, err := json.Marshal(map[string]any{"Replace": map[string]string{whole: changed}})
	if err != nil {
		return false, false, err
	}
	if err := errors.Join(os.WriteFile(changed, m.text, 0o600), os.WriteFile(over, raw, 0o600)); err != nil {
		return false, false, err
	}
	here := func(args ...string) error {
		ctx, cancel := context.WithTimeout(context.Background(), by.limit)
		defer cancel()
		c := exec.CommandContext(ctx, "go", append([]string{args[0], "-overlay", over}, args[1:]...)...)
		c.Dir = root
		return c.Run()
	}
	pkg, err := filepath.Rel(root, filepath.Dir(m.file))
	if err != nil {
		return false, false, err
	}
	pkg = "./" + filepath.ToSlash(pkg)
	if here("build", pkg) != nil {
		return false, false, nil
	}
	return here("test", pkg) != nil || here("test", "./...") != nil || here(append([]string{"test"}, by.beside...)...) != nil, true, nil
}
