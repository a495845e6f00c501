package store

import (
	"sync"

	"allcoats/core/catalog/product"
)

// Sheet is a column that holds a data sheet. Pages ask for the whole library, so a sheet that was read once is known
// by its text: nobody may change one that came from here in place.
type Sheet struct{ JSON[product.Sheet] }

// SheetOf is s as a column.
func SheetOf(s product.Sheet) Sheet { return Sheet{JSON[product.Sheet]{V: s}} }

// Scan implements sql.Scanner.
func (s *Sheet) Scan(src any) error {
	text, isText := src.(string)
	if v, ok := sheets.of(text); ok {
		s.V = v
		return nil
	}
	if err := s.JSON.Scan(src); err != nil || !isText {
		return err
	}
	sheets.keep(text, s.V)
	return nil
}

// mostSheets is how many are known before all are forgotten: several libraries of the usual size.
const mostSheets = 1000

var sheets knownSheets

// knownSheets are sheets by their text. It is safe for concurrent use.
type knownSheets struct {
	mutex sync.RWMutex
	by    map[string]product.Sheet
}

func (k *knownSheets) of(text string) (product.Sheet, bool) {
	k.mutex.RLock()
	defer k.mutex.RUnlock()
	s, ok := k.by[text]
	return s, ok
}

func (k *knownSheets) keep(text string, s product.Sheet) {
	k.mutex.Lock()
	defer k.mutex.Unlock()
	if k.by == nil || len(k.by) >= mostSheets {
		k.by = map[string]product.Sheet{}
	}
	k.by[text] = s
}
