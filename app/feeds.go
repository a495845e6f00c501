package app

import (
	"context"
	"crypto/subtle"
	"errors"

	"allcoats/store"
)

// Feed is the address by which a calendar program follows the plan of a place: whoever has it sees
// the plan, and nothing else.
type Feed struct {
	Path string `json:"path"`
}

// feedKey is the setting that holds the token of a place's feed.
func feedKey(placeID string) string { return "feed " + placeID }

func feedOf(token string) Feed { return Feed{"/calendar/" + token + ".ics"} }

// Feed returns the address of a place's plan; Path is empty before one was made.
func (a *App) Feed(ctx context.Context, placeID string) (Feed, error) {
	if _, err := a.Place(ctx, placeID); err != nil {
		return Feed{}, err
	}
	token, err := a.store.Read(ctx).Setting(ctx, feedKey(placeID))
	if errors.Is(err, store.ErrNotFound) {
		return Feed{}, nil
	}
	return feedOf(token), err
}

// SetFeed gives the plan of a place the address of a token; the one before is none any more.
func (a *App) SetFeed(ctx context.Context, placeID, token string) (Feed, error) {
	if _, err := a.Place(ctx, placeID); err != nil {
		return Feed{}, err
	}
	err := a.store.Write(ctx, func(ctx context.Context, q store.Queries) error {
		return q.SetSetting(ctx, feedKey(placeID), token)
	})
	return feedOf(token), err
}

// FeedCalendar is the calendar of the place whose feed has a token; ErrNotFound if none has.
func (a *App) FeedCalendar(ctx context.Context, token string) ([]byte, error) {
	places, err := a.Places(ctx)
	if err != nil {
		return nil, err
	}
	for _, p := range places {
		kept, err := a.store.Read(ctx).Setting(ctx, feedKey(p.ID))
		if errors.Is(err, store.ErrNotFound) {
			continue
		} else if err != nil {
			return nil, err
		}
		if subtle.ConstantTimeCompare([]byte(kept), []byte(token)) == 1 {
			return a.Calendar(ctx, p.ID)
		}
	}
	return nil, ErrNotFound
}
