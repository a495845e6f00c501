//go:build js

// Command pocket is the core on a phone: built as WebAssembly, it answers the calculators that go along
// without a signal. It sets allCoatsPocket(name, request), which returns {"result": …} or {"errors": […]}
// as JSON, and stays.
package main

import (
	"context"
	"encoding/json"
	"errors"
	"syscall/js"

	"allcoats/calc/pocket"
	"allcoats/core/base/fielderr"
)

func main() {
	js.Global().Set("allCoatsPocket", js.FuncOf(func(_ js.Value, args []js.Value) any {
		return answer(args[0].String(), args[1].String())
	}))
	select {}
}

func answer(name, request string) string {
	out := struct {
		Result any             `json:"result,omitempty"`
		Errors fielderr.Errors `json:"errors,omitempty"`
	}{}
	c, ok := pocket.ByName(name)
	if !ok {
		out.Errors.Add("", "this does not go along on the phone")
	} else if res, err := c.Run(context.Background(), []byte(request)); err == nil {
		out.Result = res
	} else if !errors.As(err, &out.Errors) {
		out.Errors.Add("", "%v", err)
	}
	raw, err := json.Marshal(out)
	if err != nil {
		return `{"errors":[{"path":"","message":"the answer cannot be told"}]}`
	}
	return string(raw)
}
