package app

import (
	"context"
	"errors"

	"allcoats/core/base/fielderr"
	"allcoats/store"

	"golang.org/x/text/currency"
)

const currencyKey = "currency"

// Currency is the code, such as EUR, of the money that all prices are in; "" while it is not set.
func (a *App) Currency(ctx context.Context) (string, error) {
	code, err := a.store.Read(ctx).Setting(ctx, currencyKey)
	if errors.Is(err, store.ErrNotFound) {
		return "", nil
	}
	return code, err
}

// SetCurrency sets it, "" for none. Prices keep their figures.
func (a *App) SetCurrency(ctx context.Context, code string) error {
	if code != "" {
		unit, err := currency.ParseISO(code)
		if err != nil {
			return fielderr.At("currency", "must be a code of three letters such as EUR")
		}
		code = unit.String()
	}
	return a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		return q.SetSetting(ctx, currencyKey, code)
	})
}
