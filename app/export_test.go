package app

import "reflect"

// StoredDocuments makes an empty value of every kind of JSON document stored.
func StoredDocuments() map[string]func() any {
	out := map[string]func() any{}
	for name, kind := range stored {
		t := reflect.TypeOf(kind)
		out[name] = func() any { return reflect.New(t).Interface() }
	}
	return out
}
