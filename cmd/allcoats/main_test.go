package main

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"net/http"
	"net/http/httptest"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/demo"
	"allcoats/httpapi"
	"allcoats/instruments"
	"allcoats/store"

	"allcoats/calc/pocket"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestMain lets the test binary stand in for the program, so that a test can
// kill it.
func TestMain(m *testing.M) {
	if os.Getenv("ALLCOATS_TEST_AS_PROGRAM") != "" {
		main()
		return
	}
	os.Exit(m.Run())
}

func execute(stdin string, args ...string) (string, error) {
	var out bytes.Buffer
	c := root()
	c.SetArgs(args)
	c.SetIn(strings.NewReader(stdin))
	c.SetOut(&out)
	err := c.Execute()
	return out.String(), err
}

func TestCalc(t *testing.T) {
	out, err := execute(`{"value":2,"from":"in","to":"mm"}`, "calc", "convert")
	require.NoError(t, err)
	assert.JSONEq(t, `{"value":50.8}`, out)

	_, err = execute(`{"value":2,"from":"in","to":"kg"}`, "calc", "convert")
	assert.ErrorContains(t, err, "to: kg is a mass")
	_, err = execute("", "calc", "magic")
	assert.ErrorContains(t, err, "no calculator")

	out, err = execute("", "calc")
	require.NoError(t, err)
	assert.Contains(t, out, `"name":"recoat"`)
}

func TestCalcLinesGoesOnAfterABadLine(t *testing.T) {
	out, err := execute(
		"{\"value\":1,\"from\":\"in\",\"to\":\"mm\"}\n{\"value\":\"x\"}\n\n{\"value\":2,\"from\":\"in\",\"to\":\"mm\"}\n", "calc", "convert", "--lines")
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(out), "\n")
	require.Len(t, lines, 3)
	assert.JSONEq(t, `{"value":25.4}`, lines[0])
	assert.Contains(t, lines[1], `"path":"value"`)
	assert.JSONEq(t, `{"value":50.8}`, lines[2])
}

// Neither what is no JSON nor a line longer than any request ends a batch.
func TestCalcLinesGoesOnAfterNonsense(t *testing.T) {
	long := `{"value":1,"from":"` + strings.Repeat("x", int(pocket.Convert.MaxBytes())) + `"}`
	out, err := execute("{\"value\":\nnull\n{}\n"+long+"\n{\"value\":2,\"from\":\"in\",\"to\":\"mm\"}", "calc",
		"convert", "--lines")
	require.NoError(t, err)
	lines := strings.Split(strings.TrimSpace(out), "\n")
	require.Len(t, lines, 5)
	for i, words := range []string{"unexpected end", "expected object", `"path":"value"`, "longer than"} {
		assert.Contains(t, lines[i], words)
	}
	assert.JSONEq(t, `{"value":50.8}`, lines[4])
}

func TestListeningElsewhereNeedsAPassphrase(t *testing.T) {
	t.Setenv("ALLCOATS_PASSPHRASE", "")
	_, err := execute("", "serve", "--addr", "0.0.0.0:0", "--db", filepath.Join(t.TempDir(), "a.db"))
	assert.ErrorContains(t, err, "ALLCOATS_PASSPHRASE")
}

func TestOpenAPI(t *testing.T) {
	out, err := execute("", "openapi")
	require.NoError(t, err)
	var doc struct {
		OpenAPI string `json:"openapi"`
		Paths   map[string]any
	}
	require.NoError(t, json.Unmarshal([]byte(out), &doc))
	assert.True(t, strings.HasPrefix(doc.OpenAPI, "3.1"))
	assert.Contains(t, doc.Paths, "/api/calc/recoat")
}

// start runs the program on db and returns it with its address.
func start(t *testing.T, db string) (*exec.Cmd, string) {
	c := exec.Command(os.Args[0], "serve", "--addr", "127.0.0.1:0", "--db", db)
	c.Env = append(os.Environ(), "ALLCOATS_TEST_AS_PROGRAM=1")
	out, err := c.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, c.Start())
	line, err := bufio.NewReader(out).ReadString('\n')
	require.NoError(t, err)
	url := regexp.MustCompile(`http://\S+`).FindString(line)
	require.NotEmpty(t, url, line)
	return c, url
}

// A kill in the middle of 200 log entries loses nothing that was acknowledged.
func TestKilledWhileWriting(t *testing.T) {
	ctx := context.Background()
	db := filepath.Join(t.TempDir(), "k.db")
	boat := fill(t, db)
	c, url := start(t, db)
	acknowledged := make(chan string, 200)
	go func() {
		defer close(acknowledged)
		for i := range 200 {
			note := fmt.Sprintf("entry %d", i)
			body := fmt.Sprintf(
				`{"boatId":%q,"kind":"other","startedAt":"2026-05-01T10:00:00Z","litres":0,"wetUm":[],"thinnerPct":0,"grit":0,"removedUm":0,"who":"Ada","note":%q}`, boat, note)
			res, err := http.Post(url+"/api/log", "application/json", strings.NewReader(body))
			if err != nil {
				return
			}
			res.Body.Close()
			if assert.Equal(t, http.StatusOK, res.StatusCode) {
				acknowledged <- note
			}
		}
	}()
	var kept []string
	for note := range acknowledged {
		if kept = append(kept, note); len(kept) == 120 {
			require.NoError(t, c.Process.Kill())
		}
	}
	_ = c.Wait()
	require.GreaterOrEqual(t, len(kept), 120)
	require.Less(t, len(kept), 200, "it was killed while writing")

	s, err := store.Open(ctx, db)
	require.NoError(t, err)
	defer s.Close()
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	log, err := a.Log(ctx, boat)
	require.NoError(t, err)
	stored := map[string]int{}
	for _, e := range log {
		stored[e.Note]++
	}
	for _, note := range kept {
		assert.Equal(t, 1, stored[note], "%s was acknowledged", note)
	}
	require.NoError(t, s.Intact(ctx))
}

// fill makes a database with one boat and returns her id.
func fill(t *testing.T, db string) string {
	ctx := context.Background()
	s, err := store.Open(ctx, db)
	require.NoError(t, err)
	defer s.Close()
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	require.NoError(t, a.SetClock(ctx, app.FixedClock, demo.Now))
	place, err := a.AddPlace(ctx, demo.Yard)
	require.NoError(t, err)
	edit := demo.Boats()[0]
	edit.PlaceID = place.ID
	boat, err := a.AddBoat(ctx, app.NewBoat{BoatEdit: edit})
	require.NoError(t, err)
	return boat.ID
}

// A backup is written and restored from the command line; what was changed in
// between is gone.
func TestBackupAndRestore(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	db, backup := filepath.Join(dir, "a.db"), filepath.Join(dir, "b.db")
	boat := fill(t, db)
	run := func(args ...string) error {
		c := root()
		c.SetArgs(args)
		return c.ExecuteContext(ctx)
	}
	require.NoError(t, run("backup", "--db", db, backup))
	assert.ErrorContains(t, run("backup", "--db", db, backup), "exists")
	file := filepath.Join(dir, "boat.json")
	require.NoError(t, run("export", "--db", db, boat, file))
	names := func() (out []string) {
		s, err := store.Open(ctx, db)
		require.NoError(t, err)
		defer s.Close()
		a, err := app.New(ctx, s, instruments.Forecast{})
		require.NoError(t, err)
		boats, err := a.Boats(ctx)
		require.NoError(t, err)
		for _, b := range boats {
			out = append(out, b.Name)
		}
		return out
	}
	require.Equal(t, []string{"Marsh Lantern"}, names())
	other := filepath.Join(dir, "other.db")
	require.NoError(t, run("import", "--db", other, file))
	require.NoError(t, run("import", "--db", other, file), "all of it is there already")

	fill(t, db)
	require.Len(t, names(), 2)
	require.NoError(t, run("restore", "--db", db, backup))
	assert.Equal(t, []string{"Marsh Lantern"}, names())
	require.NoError(t, os.WriteFile(backup, []byte("no database"), 0o600))
	assert.ErrorContains(t, run("restore", "--db", db, backup), "is no backup")
	assert.Equal(t, []string{"Marsh Lantern"}, names())
}

// While the program runs nothing else writes to its database; a copy may be taken. A damaged
// database is put aside and the newest copy of a day stands in its place, by one command.
func TestHeldAndDamaged(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	db := filepath.Join(dir, "a.db")
	boat := fill(t, db)
	run := func(args ...string) error {
		c := root()
		c.SetArgs(args)
		return c.ExecuteContext(ctx)
	}
	assert.ErrorContains(t, run("restore", "--db", db), "no copy of a day is kept")
	running, err := store.Open(ctx, db)
	require.NoError(t, err)
	_, err = running.Daily(ctx, time.Now())
	require.NoError(t, err)
	for _, args := range [][]string{{"serve"}, {"import", filepath.Join(dir, "x.json")}, {"restore"}} {
		assert.ErrorIs(t, run(append(args, "--db", db)...), store.ErrHeld, "%v", args)
	}
	require.NoError(t, run("backup", "--db", db, filepath.Join(dir, "b.db")))
	require.NoError(t, run("export", "--db", db, boat, filepath.Join(dir, "boat.json")))
	require.NoError(t, running.Close())

	raw, err := os.ReadFile(db)
	require.NoError(t, err)
	for i := 4096 * 8; i < len(raw); i += 4096 {
		copy(raw[i:], "no page")
	}
	require.NoError(t, os.WriteFile(db, raw, 0o600))
	require.ErrorIs(t, run("serve", "--db", db, "--addr", "127.0.0.1:0"), store.ErrDamaged)
	require.NoError(t, run("restore", "--db", db))
	s, err := store.Open(ctx, db)
	require.NoError(t, err)
	defer s.Close()
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	require.Len(t, boats, 1)
	aside, err := filepath.Glob(db + ".damaged-*")
	require.NoError(t, err)
	assert.Len(t, aside, 1, "the damaged one is kept")
}

func TestStopsInOrder(t *testing.T) {
	c, url := start(t, filepath.Join(t.TempDir(), "s.db"))
	res, err := http.Get(url + "/healthz")
	require.NoError(t, err)
	res.Body.Close()
	require.NoError(t, c.Process.Signal(os.Interrupt))
	done := make(chan error, 1)
	go func() { done <- c.Wait() }()
	select {
	case err := <-done:
		assert.NoError(t, err)
	case <-time.After(10 * time.Second):
		_ = c.Process.Kill()
		t.Fatal("did not stop")
	}
}

// The simulated logger sends to a running program what a real one would.
func TestSim(t *testing.T) {
	ctx := context.Background()
	s, err := store.Open(ctx, filepath.Join(t.TempDir(), "s.db"))
	require.NoError(t, err)
	defer s.Close()
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	require.NoError(t, demo.Build(ctx, a, demo.Now, app.FixedClock))
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	i, err := a.AddInstrument(ctx, boats[0].PlaceID, app.InstrumentEdit{Name: "Live", Kind: "air", Feed: app.Live})
	require.NoError(t, err)
	server := httptest.NewServer(httpapi.Handler(a, httpapi.Options{}))
	defer server.Close()
	out, err := execute("", "sim", "--to", server.URL, "--instrument", i.ID, "--times", "1", "--every", "1ms")
	require.NoError(t, err)
	assert.Equal(t, 60, strings.Count(out, "tempC"))
	i, err = a.Instrument(ctx, i.ID)
	require.NoError(t, err)
	assert.Equal(t, 60, i.Count)
	assert.Equal(t, demo.Now, *i.Last)
	_, err = execute("", "sim", "--to", server.URL, "--instrument", "none", "--times", "1")
	assert.ErrorContains(t, err, "404")
}

// The demo replaces a demo, and nothing else.
func TestTheDemoTakesNoOtherFile(t *testing.T) {
	ctx := context.Background()
	dir := t.TempDir()
	own := filepath.Join(dir, "yard.db")
	fill(t, own)
	assert.ErrorContains(t, clearDemo(ctx, own), "left as it is")
	assert.FileExists(t, own)
	letter := filepath.Join(dir, "letter.txt")
	require.NoError(t, os.WriteFile(letter, []byte("Dear harbour master, this is no database at all."), 0o600))
	assert.ErrorIs(t, clearDemo(ctx, letter), store.ErrForeign)
	assert.FileExists(t, letter)

	made := filepath.Join(dir, "demo.db")
	s, err := store.Open(ctx, made)
	require.NoError(t, err)
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	require.NoError(t, a.MarkDemo(ctx))
	require.NoError(t, s.Close())
	require.NoError(t, clearDemo(ctx, made))
	assert.NoFileExists(t, made)
	assert.NoError(t, clearDemo(ctx, filepath.Join(dir, "none.db")))
}

// A calculator on the command line is stopped by an interrupt.
func TestAnInterruptStopsACalculator(t *testing.T) {
	var items []string
	for i := range 200 {
		items = append(items, fmt.Sprintf(`{"name":"%d","baseML":%d,"hardenerML":%d,"priceCents":%d}`, i, 1009+7*i,
			2999-11*i, 1000+(i*i)%97))
	}
	request := `{"needBaseML":9999991,"needHardenerML":4999999,"stockBaseML":0,"stockHardenerML":0,"items":[` +
		strings.Join(items, ",") + `]}`
	c := exec.Command(os.Args[0], "calc", "purchase")
	c.Env = append(os.Environ(), "ALLCOATS_TEST_AS_PROGRAM=1")
	c.Stdin = strings.NewReader(request)
	require.NoError(t, c.Start())
	ended := make(chan error, 1)
	go func() { ended <- c.Wait() }()
	select {
	case err := <-ended:
		t.Fatalf("it was to take long, and ended: %v", err)
	case <-time.After(1500 * time.Millisecond):
	}
	require.NoError(t, c.Process.Signal(os.Interrupt))
	select {
	case err := <-ended:
		assert.Error(t, err, "it tells that there is no answer")
	case <-time.After(10 * time.Second):
		_ = c.Process.Kill()
		t.Fatal("did not stop")
	}
}

// Whoever cannot log in any more gives himself a new passphrase where the program stands.
func TestUsersByCommand(t *testing.T) {
	ctx := context.Background()
	db := filepath.Join(t.TempDir(), "a.db")
	run := func(in string, args ...string) error {
		c := root()
		c.SetArgs(append(args, "--db", db))
		c.SetIn(strings.NewReader(in))
		return c.ExecuteContext(ctx)
	}
	assert.ErrorContains(t, run("short\n", "user", "set", "Ada"), "10 to 72")
	require.NoError(t, run("tide and spar\n", "user", "set", "Ada"))
	require.NoError(t, run("mast and boom", "user", "set", "ada"))
	require.NoError(t, run("mast and boom", "user", "set", "Wim", "--may", "log"))
	assert.ErrorContains(t, run("", "user", "remove", "Ada"), "last who may all")
	require.NoError(t, run("", "user", "remove", "Wim"))
	s, err := store.Open(ctx, db)
	require.NoError(t, err)
	defer s.Close()
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	_, err = a.Login(ctx, "Ada", "tide and spar", []byte("x"), time.Now())
	require.ErrorIs(t, err, app.ErrWrong, "the old one")
	u, err := a.Login(ctx, "Ada", "mast and boom", []byte("x"), time.Now())
	require.NoError(t, err)
	assert.Equal(t, app.MayAll, u.May)
}
