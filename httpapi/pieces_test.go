package httpapi

import (
	"bytes"
	"image"
	"image/color"
	"image/png"
	"io"
	"math/rand/v2"
	"net/http"
	"strconv"
	"testing"

	"allcoats/app"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A photo comes in pieces by a line that breaks, goes on where it ended, and is stored once.
func TestAPhotoInPieces(t *testing.T) {
	c := serve(t, "", true)
	boats, err := c.app.Boats(t.Context())
	require.NoError(t, err)
	sv, err := c.app.Survey(t.Context(), boats[0].ID)
	require.NoError(t, err)
	d := sv.Defects[0]
	noise := image.NewRGBA(image.Rect(0, 0, 300, 300))
	r := rand.New(rand.NewPCG(1, 2))
	for i := range 300 * 300 {
		noise.Set(i%300, i/300, color.RGBA{uint8(r.Uint32()), uint8(r.Uint32()), uint8(r.Uint32()), 255})
	}
	var photo bytes.Buffer
	require.NoError(t, png.Encode(&photo, noise))
	whole, id := photo.Bytes(), uuid.NewString()

	send := func(method, path string, body []byte, headers ...string) (int, string) {
		req, err := http.NewRequest(method, c.url+path, bytes.NewReader(body))
		require.NoError(t, err)
		req.Header.Set("Content-Type", "application/octet-stream")
		for i := 0; i < len(headers); i += 2 {
			req.Header.Set(headers[i], headers[i+1])
		}
		res, err := http.DefaultClient.Do(req)
		require.NoError(t, err)
		defer res.Body.Close()
		raw, err := io.ReadAll(res.Body)
		require.NoError(t, err)
		return res.StatusCode, string(raw)
	}
	piece := func(from, to int) (int, string) {
		return send("PUT", "/api/pieces/"+id+"?at="+strconv.Itoa(from), whole[from:to])
	}
	status, said := piece(0, 1000)
	assert.Equal(t, 200, status)
	assert.JSONEq(t, `{"bytes":1000}`, said)
	for range 2 { // a piece that was heard and whose answer was not comes again; one from further on is too early
		_, said = piece(0, 500)
		assert.JSONEq(t, `{"bytes":1000}`, said)
		_, said = piece(2000, 3000)
		assert.JSONEq(t, `{"bytes":1000}`, said)
		_, said = send("GET", "/api/pieces/"+id, nil)
		assert.JSONEq(t, `{"bytes":1000}`, said, "what to go on from")
	}
	status, _ = piece(1000, len(whole))
	assert.Equal(t, 200, status)

	photos := "/api/defects/" + d.ID + "/photos"
	status, _ = send("POST", photos, nil, "X-Pieces", uuid.NewString())
	assert.Equal(t, http.StatusServiceUnavailable, status, "pieces that nobody sent: another try sends them")
	status, said = send("POST", photos, nil, "X-Pieces", id, "Idempotency-Key", id)
	assert.Equal(t, 200, status, said)
	sv, err = c.app.Survey(t.Context(), boats[0].ID)
	require.NoError(t, err)
	assert.Len(t, sv.Defects[0].Photos, len(d.Photos)+1)
	_, said = piece(1000, 2000)
	assert.JSONEq(t, `{"bytes":0}`, said, "what was stored is not kept twice")

	status, _ = send("PUT", "/api/pieces/"+id+"?at=0", make([]byte, maxPieceBytes+1))
	assert.Equal(t, http.StatusRequestEntityTooLarge, status)
}

func TestPiecesAreBounded(t *testing.T) {
	p, piece := newPieces(), make([]byte, maxPieceBytes)
	at := 0
	for at+len(piece) <= maxPhotoBytes {
		has, err := p.add(t.Context(), "a", at, piece)
		require.NoError(t, err)
		at = has.Bytes
	}
	assert.Equal(t, maxPhotoBytes, at)
	_, err := p.add(t.Context(), "a", at, []byte{1})
	require.Error(t, err)
	has, err := p.add(t.Context(), "a", 0, []byte{1})
	require.NoError(t, err, "it can be begun anew")
	assert.Equal(t, 1, has.Bytes)

	stranger := app.With(t.Context(), app.User{ID: "stranger"})
	has, err = p.add(stranger, "a", 1, []byte{1})
	require.NoError(t, err)
	assert.Zero(t, has.Bytes, "another's pieces are not gone on with")
	for i := range mostBegun {
		_, err := p.add(stranger, strconv.Itoa(i), 0, []byte{1})
		require.NoError(t, err)
	}
	has, err = p.add(t.Context(), "a", 1, []byte{1})
	require.NoError(t, err)
	assert.Zero(t, has.Bytes, "the oldest give way")
}
