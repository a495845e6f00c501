package httpapi

import (
	"bytes"
	"context"
	"io"
	"net/http"
	"sync"
	"time"

	"allcoats/app"

	"github.com/danielgtaylor/huma/v2"
	"github.com/gin-gonic/gin"
	"github.com/hashicorp/golang-lru/v2/expirable"
)

// A large thing by a bad line comes in pieces: each is kept here, a broken line loses one of them, and the request
// that they are for names them by piecesHeader instead of having a body.
const (
	piecesHeader  = "X-Pieces"
	maxPieceBytes = 1 << 20
	// mostBegun things may be on their way, each no longer than a photo, and each piecesTime long.
	mostBegun  = 8
	piecesTime = 2 * time.Hour
)

// pieces are the beginnings of what is on its way, by who sends it and its id; what is lost of them with
// the program is sent anew.
type pieces struct {
	mu    sync.Mutex
	begun *expirable.LRU[string, []byte]
}

func newPieces() *pieces {
	return &pieces{begun: expirable.NewLRU[string, []byte](mostBegun, nil, piecesTime)}
}

// Pieces tells how much of a thing is here, bytes.
type Pieces struct {
	Bytes int `json:"bytes"`
}

func piecesKey(ctx context.Context, id string) string { return app.UserOf(ctx).ID + "/" + id }

// add puts a piece behind those that are here. One that begins elsewhere than they end is left: the answer
// says where they end.
func (p *pieces) add(ctx context.Context, id string, at int, piece []byte) (Pieces, error) {
	p.mu.Lock()
	defer p.mu.Unlock()
	key := piecesKey(ctx, id)
	has, _ := p.begun.Get(key)
	if at != len(has) {
		return Pieces{len(has)}, nil
	}
	if len(has)+len(piece) > maxPhotoBytes {
		p.begun.Remove(key)
		return Pieces{}, huma.Error413RequestEntityTooLarge("that is larger than the program takes")
	}
	whole := append(has[:len(has):len(has)], piece...)
	p.begun.Add(key, whole)
	return Pieces{len(whole)}, nil
}

// gathered gives a request that names pieces these as its body.
func (p *pieces) gathered(c *gin.Context) {
	id := c.GetHeader(piecesHeader)
	if id == "" {
		return
	}
	whole, ok := p.begun.Get(piecesKey(c.Request.Context(), id))
	if !ok {
		c.AbortWithStatusJSON(http.StatusServiceUnavailable, newError(http.StatusServiceUnavailable,
			"the pieces of this are not here any more: send them again"))
		return
	}
	c.Request.Body, c.Request.ContentLength = io.NopCloser(bytes.NewReader(whole)), int64(len(whole))
	c.Next()
	if c.Writer.Status() < http.StatusBadRequest {
		p.begun.Remove(piecesKey(c.Request.Context(), id))
	}
}

// has is how much of a thing is here.
func (p *pieces) has(ctx context.Context, id string) Pieces {
	here, _ := p.begun.Get(piecesKey(ctx, id))
	return Pieces{len(here)}
}

// sent adds the way in for pieces.
func (p *pieces) sent(api huma.API) {
	huma.Register(api, huma.Operation{OperationID: "get-pieces", Method: http.MethodGet, Path: "/api/pieces/{id}",
		Summary: "How much of something large is here, to go on from"},
		func(ctx context.Context, in *struct {
			ID string `path:"id" format:"uuid"`
		}) (*answer[Pieces], error) {
			return &answer[Pieces]{p.has(ctx, in.ID)}, nil
		})
	op := huma.Operation{OperationID: "put-piece", Method: http.MethodPut, Path: "/api/pieces/{id}",
		MaxBodyBytes: maxPieceBytes, BodyReadTimeout: time.Minute,
		Summary: "Send a piece of something large, which a request names by " + piecesHeader +
			" then; the answer says how much is here"}
	huma.Register(api, op, func(ctx context.Context, in *struct {
		ID      string `path:"id" format:"uuid"`
		At      int    `query:"at" minimum:"0" doc:"where the piece begins, bytes"`
		RawBody []byte `contentType:"application/octet-stream"`
	}) (*answer[Pieces], error) {
		out, err := p.add(ctx, in.ID, in.At, in.RawBody)
		if err != nil {
			return nil, err
		}
		return &answer[Pieces]{out}, nil
	})
}
