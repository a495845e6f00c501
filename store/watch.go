package store

import (
	"context"
	"database/sql"

	"github.com/jmoiron/sqlx"
)

type watchKey struct{}

// Watch returns a context under which told hears every statement put to the file.
func Watch(ctx context.Context, told func(statement string)) context.Context {
	return context.WithValue(ctx, watchKey{}, told)
}

// watched is db, or db told of if ctx is watched.
func watched(ctx context.Context, db sqlx.ExtContext) sqlx.ExtContext {
	if told, ok := ctx.Value(watchKey{}).(func(string)); ok {
		return watching{db, told}
	}
	return db
}

type watching struct {
	sqlx.ExtContext
	told func(string)
}

func (w watching) QueryContext(ctx context.Context, query string, args ...any) (*sql.Rows, error) {
	w.told(query)
	return w.ExtContext.QueryContext(ctx, query, args...)
}

func (w watching) QueryxContext(ctx context.Context, query string, args ...any) (*sqlx.Rows, error) {
	w.told(query)
	return w.ExtContext.QueryxContext(ctx, query, args...)
}

func (w watching) QueryRowxContext(ctx context.Context, query string, args ...any) *sqlx.Row {
	w.told(query)
	return w.ExtContext.QueryRowxContext(ctx, query, args...)
}

func (w watching) ExecContext(ctx context.Context, query string, args ...any) (sql.Result, error) {
	w.told(query)
	return w.ExtContext.ExecContext(ctx, query, args...)
}
