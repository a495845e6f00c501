// Exhaustive is the checker of that name as go vet runs it: what was checked before and has not changed is not
// checked again.
package main

import (
	"github.com/nishanths/exhaustive"
	"golang.org/x/tools/go/analysis/unitchecker"
)

func main() { unitchecker.Main(exhaustive.Analyzer) }
