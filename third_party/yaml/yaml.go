// Package yaml stands in for a codec that is not used.
package yaml

import (
	"errors"
	"io"
)

type Decoder struct{}

func NewDecoder(io.Reader) *Decoder { return &Decoder{} }

func (*Decoder) Decode(any) error { return errors.ErrUnsupported }

func Marshal(any) ([]byte, error) { return nil, errors.ErrUnsupported }
