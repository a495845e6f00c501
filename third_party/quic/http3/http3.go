// Package http3 stands in for a server that is not used.
package http3

import (
	"errors"
	"net/http"
)

func ListenAndServeQUIC(addr, certFile, keyFile string, handler http.Handler) error {
	return errors.ErrUnsupported
}
