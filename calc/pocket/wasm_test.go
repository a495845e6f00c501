package pocket

import (
	"bytes"
	"encoding/json"
	"math"
	"os"
	"os/exec"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// run asks the core as a phone carries it, in Node.
const run = `
const fs = require("fs");
const [exec, wasm] = process.argv.slice(2);
require(exec);
(async () => {
  const go = new Go();
  const { instance } = await WebAssembly.instantiate(fs.readFileSync(wasm), go.importObject);
  go.run(instance);
  const asked = JSON.parse(fs.readFileSync(0, "utf8"));
  const told = asked.map(([name, request]) => JSON.parse(allCoatsPocket(name, JSON.stringify(request))));
  process.stdout.write(JSON.stringify(told), () => process.exit(0));
})();
`

// What a phone answers without a signal is what the program answers, to the last figures that a
// processor's own functions leave open; and what the program refuses it refuses at the same field.
func TestAPhoneAnswersAsTheProgramDoes(t *testing.T) {
	dir := t.TempDir()
	wasm, script := filepath.Join(dir, "core.wasm"), filepath.Join(dir, "run.cjs")
	build := exec.Command("go", "build", "-o", wasm, "../../cmd/pocket")
	build.Env = append(os.Environ(), "GOOS=js", "GOARCH=wasm")
	out, err := build.CombinedOutput()
	require.NoError(t, err, "%s", out)
	root, err := exec.Command("go", "env", "GOROOT").Output()
	require.NoError(t, err)
	loader, err := os.ReadFile(filepath.Join(string(bytes.TrimSpace(root)), "lib", "wasm", "wasm_exec.js"))
	require.NoError(t, err)
	execJS := filepath.Join(dir, "wasm_exec.cjs")
	require.NoError(t, os.WriteFile(execJS, loader, 0o600))
	require.NoError(t, os.WriteFile(script, []byte(run), 0o600))

	asked := [][2]any{
		{"mix", json.RawMessage(`{"ratioByVolume":{"base":4,"hardener":1},"totalL":-1}`)},
		{"film", json.RawMessage(`{"volumeSolidsPct":0.5,"dftUm":100,"coats":1}`)},
		{"moist-air", json.RawMessage(`{"tempC":15,"rhPct":140}`)},
		{"moist-air", json.RawMessage(`{"tempC":"warm"}`)},
	}
	refused := len(asked)
	for _, c := range All {
		asked = append(asked, [2]any{c.Info().Name, c.Info().Example})
	}
	for t := -5; t < 35; t += 3 {
		for rh := 30; rh <= 100; rh += 14 {
			asked = append(asked, [2]any{"moist-air", map[string]float64{"tempC": float64(t), "rhPct": float64(rh),
				"surfaceTempC": float64(t) - 2}})
		}
	}
	in, err := json.Marshal(asked)
	require.NoError(t, err)
	node := exec.Command("node", script, execJS, wasm)
	node.Stdin, node.Stderr = bytes.NewReader(in), os.Stderr
	raw, err := node.Output()
	require.NoError(t, err)
	var told []struct {
		Result any
		Errors []struct{ Path string }
	}
	require.NoError(t, json.Unmarshal(raw, &told))
	require.Len(t, told, len(asked))
	for i, a := range asked {
		name := a[0].(string)
		c, ok := ByName(name)
		require.True(t, ok)
		request, err := json.Marshal(a[1])
		require.NoError(t, err)
		want, err := c.Run(t.Context(), request)
		if i < refused {
			require.Error(t, err)
			require.NotEmpty(t, told[i].Errors, "%s %s", name, request)
			assert.Contains(t, err.Error(), told[i].Errors[0].Path)
			continue
		}
		require.NoError(t, err)
		raw, err := json.Marshal(want)
		require.NoError(t, err)
		var mine any
		require.NoError(t, json.Unmarshal(raw, &mine))
		alike(t, name, mine, told[i].Result)
	}
}

// alike compares two JSON values, numbers to nine figures.
func alike(t *testing.T, at string, want, got any) {
	t.Helper()
	switch w := want.(type) {
	case map[string]any:
		g, ok := got.(map[string]any)
		if assert.True(t, ok, at) && assert.Len(t, g, len(w), at) {
			for k := range w {
				alike(t, at+"."+k, w[k], g[k])
			}
		}
	case []any:
		g, ok := got.([]any)
		if assert.True(t, ok, at) && assert.Len(t, g, len(w), at) {
			for i := range w {
				alike(t, at, w[i], g[i])
			}
		}
	case float64:
		g, ok := got.(float64)
		if assert.True(t, ok, at) {
			assert.LessOrEqual(t, math.Abs(w-g), 1e-9*math.Max(1, math.Abs(w)), at)
		}
	default:
		assert.Equal(t, want, got, at)
	}
}
