package httpapi

import (
	"context"
	"fmt"
	"net/http"
	"time"

	"allcoats/app"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/sse"
)

// Changed says that what was answered under another edition may be answered otherwise now.
type Changed struct {
	Edition string `json:"edition"`
}

// changes tells who listens when something was stored, by whomever, and when a minute has passed.
func changes(api huma.API, a *app.App, stopping <-chan struct{}) {
	started := time.Now().Unix()
	sse.Register(api, huma.Operation{OperationID: "changes", Method: http.MethodGet, Path: "/api/changes",
		Metadata: map[string]any{streamed: true},
		Summary:  "Server-sent events: the edition of what is stored, at once and at each change"},
		map[string]any{"changed": Changed{}},
		func(ctx context.Context, _ *none, send sse.Sender) {
			ctx, end := context.WithCancel(ctx)
			defer end()
			go func() {
				select {
				case <-stopping:
					end()
				case <-ctx.Done():
				}
			}()
			// One that is gone, or a database that does not answer, ends it; the client asks anew.
			_ = a.Follow(ctx, func(e app.Edition) error {
				goOn(ctx)
				return send.Data(Changed{fmt.Sprint(started, "-", e.Writes, "-", e.Odds, "-", e.Minute.Unix())})
			})
		})
}
