// Package bson stands in for a codec that is not used.
package bson

import "errors"

func Marshal(any) ([]byte, error) { return nil, errors.ErrUnsupported }

func Unmarshal([]byte, any) error { return errors.ErrUnsupported }
