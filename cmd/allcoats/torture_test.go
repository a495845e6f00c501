package main

import (
	"compress/gzip"
	"context"
	"io"
	"math/rand/v2"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"testing"
	"time"

	"allcoats/app"
	"allcoats/instruments"
	"allcoats/store"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// rounds are the kills of each kind: a few in every run of the tests, as many as TORTURE says in `make torture`.
func rounds(t *testing.T) int {
	n, err := strconv.Atoi(os.Getenv("TORTURE"))
	if err != nil {
		return 3
	}
	t.Logf("%d rounds", n)
	return n
}

// killed runs a command of the program and kills it at an instant of its first 0.7 s; it reports whether it
// had ended well before.
func killed(t *testing.T, args ...string) (done bool) {
	c := exec.Command(os.Args[0], args...)
	c.Env = append(os.Environ(), "ALLCOATS_TEST_AS_PROGRAM=1")
	require.NoError(t, c.Start())
	ended := make(chan error, 1)
	go func() { ended <- c.Wait() }()
	select {
	case err := <-ended:
		return err == nil
	case <-time.After(time.Duration(rand.IntN(700_000)) * time.Microsecond):
		_ = c.Process.Kill() // it may just have ended
		return <-ended == nil
	}
}

// boatsOf opens what a killed program left, which must be whole, and names the boats in it.
func boatsOf(t *testing.T, db string) []string {
	ctx := context.Background()
	s, err := store.Open(ctx, db)
	require.NoError(t, err)
	defer s.Close()
	require.NoError(t, s.Intact(ctx))
	a, err := app.New(ctx, s, instruments.Forecast{})
	require.NoError(t, err)
	boats, err := a.Boats(ctx)
	require.NoError(t, err)
	out := []string{}
	for _, b := range boats {
		_, err := a.Survey(ctx, b.ID)
		require.NoError(t, err)
		out = append(out, b.Name)
	}
	_, err = os.Stat(db + ".tmp")
	require.ErrorIs(t, err, os.ErrNotExist, "no scratch is left once it was opened")
	return out
}

// Killed while it imports, restores, backs up or brings an old database up to date, the program leaves what was
// or what was to be, whole, and never a part of a file under its name.
func TestKilledAnywhere(t *testing.T) {
	dir := t.TempDir()
	at := func(name string) string { return filepath.Join(dir, name) }
	full, file, backup := at("full.db"), at("boat.json"), at("backup.db")
	boat := fill(t, full)
	require.NoError(t, quiet("export", "--db", full, boat, file))
	require.NoError(t, quiet("backup", "--db", full, backup))
	ended := map[string]int{}
	n := rounds(t)
	for i := range n {
		name := strconv.Itoa(i)
		fresh := at("import" + name + ".db")
		if done := killed(t, "import", "--db", fresh, file); done {
			ended["import"]++
			assert.Len(t, boatsOf(t, fresh), 1, "it said that it was in")
		} else {
			assert.LessOrEqual(t, len(boatsOf(t, fresh)), 1)
		}
		two := at("restore" + name + ".db")
		fill(t, two)
		fill(t, two)
		if done := killed(t, "restore", "--db", two, backup); done {
			ended["restore"]++
			assert.Len(t, boatsOf(t, two), 1)
		} else {
			assert.Contains(t, []int{1, 2}, len(boatsOf(t, two)), "all or nothing")
		}
		copied := at("copy" + name + ".db")
		done := killed(t, "backup", "--db", full, copied)
		if _, err := os.Stat(copied); err == nil {
			assert.Len(t, boatsOf(t, copied), 1, "whole under its name")
		} else {
			assert.False(t, done, "it said that it was written")
		}
		old := at("old" + name + ".db")
		unpack(t, "../../app/testdata/released/08.db.gz", old)
		killed(t, "user", "list", "--db", old)
		assert.Len(t, boatsOf(t, old), 3, "brought up to date, however often that is begun")
	}
	assert.Len(t, boatsOf(t, full), 1, "what was only read is as it was")
	t.Logf("%d kills; ended before: %v", 4*n, ended)
}

func quiet(args ...string) error {
	_, err := execute("", args...)
	return err
}

func unpack(t *testing.T, from, to string) {
	f, err := os.Open(from)
	require.NoError(t, err)
	defer f.Close()
	z, err := gzip.NewReader(f)
	require.NoError(t, err)
	out, err := os.Create(to)
	require.NoError(t, err)
	_, err = io.Copy(out, z)
	require.NoError(t, err)
	require.NoError(t, out.Close())
}
