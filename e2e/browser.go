// Package e2e drives the real interface in headless Chromium.
package e2e

import (
	"context"
	"encoding/base64"
	"encoding/json"
	"errors"
	"fmt"
	"os"
	"regexp"
	"strings"
	"time"

	"github.com/chromedp/cdproto/input"
	"github.com/chromedp/cdproto/network"
	"github.com/chromedp/cdproto/page"
	"github.com/chromedp/cdproto/runtime"
	"github.com/chromedp/chromedp"
)

// Browser starts a headless Chromium; cancel ends it.
func Browser(ctx context.Context) (context.Context, context.CancelFunc, error) {
	path := os.Getenv("CHROMIUM")
	for _, installed := range []string{"/usr/bin/chromium-headless-shell",
		"/usr/bin/chromium"} { // the first has no window to draw and takes a third less of the processor
		if _, err := os.Stat(installed); path == "" && err == nil {
			path = installed
		}
	}
	options := append(chromedp.DefaultExecAllocatorOptions[:], chromedp.ExecPath(path), chromedp.NoSandbox,
		chromedp.DisableGPU,
		chromedp.Flag("font-render-hinting", "none"), chromedp.Flag("disable-component-update", true),
		chromedp.Flag("lang", "en-GB"), chromedp.Flag("accept-lang", "en-GB"), chromedp.Flag("disable-quic", true),
		chromedp.Flag("disable-domain-reliability", true),
		chromedp.IgnoreCertErrors, // a client in Go checks the yard's authority; this one is to come through
		chromedp.Flag("host-resolver-rules", "MAP "+elsewhere+" 127.0.0.1, MAP * ~NOTFOUND , EXCLUDE 127.0.0.1"),
		chromedp.WindowSize(1280, 800))
	alloc, cancelAlloc := chromedp.NewExecAllocator(ctx, options...)
	b, cancelBrowser := chromedp.NewContext(alloc)
	if err := chromedp.Do(b); err != nil {
		cancelAlloc()
		return nil, nil, fmt.Errorf("start Chromium at %s: %w", path, err)
	}
	return b, func() { cancelBrowser(); cancelAlloc() }, nil
}

// Page is a tab. The first failure is kept and makes all later steps do
// nothing; Err tells it.
type Page struct {
	ctx    context.Context
	cancel context.CancelFunc
	site   string
	err    error
	step   string
	logged []string
}

// Open opens a tab with a profile of its own.
func Open(browser context.Context, site *Site) *Page {
	ctx, cancel := chromedp.NewContext(browser, chromedp.WithNewBrowserContext())
	p := &Page{ctx: ctx, cancel: cancel, site: site.URL}
	chromedp.Listen(ctx, func(ev any) {
		if c, ok := ev.(*runtime.EventConsoleAPICalled); ok &&
			c.Type == "error" { // what a boundary of React caught too
			for _, a := range c.Args {
				p.logged = append(p.logged, a.Description+string(a.Value))
			}
		}
		if _, ok := ev.(*page.EventJavascriptDialogOpening); ok { // a test that goes elsewhere leaves what it typed
			go func() {
				_, _ = chromedp.Call(ctx, page.HandleJavaScriptDialog,
					page.HandleJavaScriptDialogParams{Accept: true}) // one that is gone needs none
			}()
		}
		if e, ok := ev.(*runtime.EventExceptionThrown); ok {
			text := e.ExceptionDetails.Text
			if x := e.ExceptionDetails.Exception; x != nil {
				text += " " + x.Description
			}
			p.logged = append(p.logged, text)
		}
	})
	return p
}

// Close closes the tab.
func (p *Page) Close() { p.cancel() }

// Err returns the first failure, or an error that the page itself logged.
func (p *Page) Err() error {
	if p.err != nil {
		return fmt.Errorf("%s: %w", p.step, p.err)
	}
	if len(p.logged) > 0 {
		return fmt.Errorf("the page threw: %s", strings.Join(p.logged, "; "))
	}
	return nil
}

// patience is how long a step waits for what it needs.
const patience = 30 * time.Second // beside other tests a page takes its time

func (p *Page) do(step string, fn func(ctx context.Context) error) *Page {
	if p.err != nil {
		return p
	}
	ctx, cancel := context.WithTimeout(p.ctx, patience+8*time.Second)
	defer cancel()
	p.step = step
	p.err = fn(ctx)
	return p
}

// Size sets the window; phone also makes it a touch screen.
func (p *Page) Size(width, height int64, phone bool) *Page {
	return p.do("size", func(ctx context.Context) error {
		if phone {
			return chromedp.Do(ctx, chromedp.EmulateViewport(width, height, chromedp.EmulateScale(2),
				chromedp.EmulateMobile, chromedp.EmulateTouch, chromedp.EmulatePortrait))
		}
		return chromedp.Do(ctx, chromedp.EmulateViewport(width, height))
	})
}

// Workless keeps the site from installing its service worker, which fetches ahead for days
// without a signal what most tests have no use for.
func (p *Page) Workless() *Page {
	return p.do("have no worker", func(ctx context.Context) error {
		_, err := chromedp.Call(ctx, page.AddScriptToEvaluateOnNewDocument, page.AddScriptToEvaluateOnNewDocumentParams{
			Source: `if (navigator.serviceWorker) navigator.serviceWorker.register = () => new Promise(() => {})`})
		return err
	})
}

// Login gives the passphrase with every request.
func (p *Page) Login(passphrase string) *Page {
	return p.do("login", func(ctx context.Context) error {
		basic := "Basic " + base64.StdEncoding.EncodeToString([]byte("yard:"+passphrase))
		if _, err := chromedp.Call(ctx, network.Enable, network.EnableParams{}); err != nil {
			return err
		}
		_, err := chromedp.Call(ctx, network.SetExtraHTTPHeaders,
			network.SetExtraHTTPHeadersParams{Headers: network.Headers{"Authorization": basic}})
		return err
	})
}

// Go opens a path of the site.
func (p *Page) Go(path string) *Page {
	return p.do("go to "+path, func(ctx context.Context) (err error) {
		for range 3 { // what the page before still had under way may end it; who looks at it goes there again
			err = chromedp.Do(ctx, chromedp.Navigate(p.site+path))
			if err == nil || !strings.Contains(err.Error(), "net::ERR_ABORTED") {
				break
			}
		}
		return err
	})
}

// Turn goes to another page of the program that is open, as its own links do, until that is drawn.
func (p *Page) Turn(path string) *Page {
	return p.js(`new Promise((drawn) => { history.pushState(null, "", ` + quoted(path) +
		`); requestAnimationFrame(() => requestAnimationFrame(() => drawn(true))); })`)
}

// Leave ends the page as closing the tab would; what it kept stays.
func (p *Page) Leave() *Page {
	return p.do("leave", func(ctx context.Context) error { return chromedp.Do(ctx, chromedp.Navigate("about:blank")) })
}

func (p *Page) js(expression string) *Page {
	return p.until("run "+expression, expression)
}

// until waits for an expression to be true.
func (p *Page) until(step, expression string) *Page {
	return p.do(step, func(ctx context.Context) error {
		deadline := time.Now().Add(patience)
		for {
			ok, err := chromedp.Run(ctx, chromedp.Evaluate[bool](expression, chromedp.EvalAwaitPromise))
			if err == nil && ok {
				return nil
			}
			if time.Now().After(deadline) {
				shown, _ := chromedp.Run(ctx,
					chromedp.Evaluate[string](`location.pathname + ": " + (document.querySelector("dialog[open]") ?? document.querySelector("main") ?? document.body).innerText.slice(0, 1500)`))
				return errors.Join(err, fmt.Errorf("waited in vain; the page shows:\n%s", shown))
			}
			time.Sleep(40 * time.Millisecond)
		}
	})
}

// text is what an expression gives, once it gives something.
func (p *Page) text(expression string) (out string) {
	p.until("read "+expression, "!!("+expression+")").do("read "+expression, func(ctx context.Context) (err error) {
		out, err = chromedp.Run(ctx, chromedp.Evaluate[string](expression))
		return err
	})
	return out
}

// script finds elements as a person would: by the text of a button, link or
// tab, or by a field's label. It skips what is not shown.
const script = `(() => {
  const norm = (s) => (s ?? "").replace(/\s+/g, " ").trim();
  const shown = (e) => e.getClientRects().length > 0;
  const name = (e) => norm(e.getAttribute("aria-label") || e.innerText || e.getAttribute("title"));
  window.e2e = {
    press(text) {
      const all = [...document.querySelectorAll("button, a, [role=button], [role=tab], summary, input[type=radio]")].filter(shown);
      const boxes = [...document.querySelectorAll("input[type=checkbox]")].filter(shown);
      return all.find((e) => name(e) === text) || all.find((e) => name(e).startsWith(text)) ||
        boxes.find((e) => norm(e.labels[0]?.innerText).startsWith(text));
    },
    field(label) { // "group › label" is the field of that label in a group of fields
      const [group, own] = label.includes(" › ") ? label.split(" › ") : [null, label];
      const root = group ? document.querySelector('fieldset[aria-label="' + group + '"]') : document;
      label = own;
      const l = [...(root ?? document).querySelectorAll("label")].filter(shown).find((e) => norm(e.innerText) === label);
      return l ? l.control || l.querySelector("input, select, textarea") : [...document.querySelectorAll("select[aria-label], input[aria-label]")].find((e) => name(e) === label);
    },
  };
  return true;
})()`

// mark marks the element that find gives, and watches whether the next click comes to it, or to what
// is drawn in its place by then.
func (p *Page) mark(find string) *Page {
	return p.until("find "+find, script+fmt.Sprintf(` && (() => { const find = () => %s; const e = find(); if (!e || e.disabled) return false;
		document.querySelectorAll("[data-e2e]").forEach((x) => x.removeAttribute("data-e2e")); e.setAttribute("data-e2e", "");
		window.e2eMark?.abort(); window.e2eMark = new AbortController(); window.e2eHit = false;
		document.addEventListener("click", (click) => { window.e2eHit ||= !!find()?.contains(click.target); }, { capture: true, signal: window.e2eMark.signal });
		if (!e.closest("dialog")) e.scrollIntoView({ block: "center" }); return true; })()`, find))
}

const marked = chromedp.CSS("[data-e2e]")

func quoted(s string) string {
	b, _ := json.Marshal(s) // a string always marshals
	return string(b)
}

// redrawn are the errors of an element that the page draws anew while something is done to it.
var redrawn = regexp.MustCompile(`(?i)could not find node|no node with given id|not attached|of null|pressed beside`)

// on does something to the element that is found; one that is drawn anew meanwhile is looked for again.
func (p *Page) on(step, find string, act func(ctx context.Context) error) *Page {
	return p.mark(find).do(step, func(ctx context.Context) error {
		err := act(ctx)
		for tries := 0; tries < 3 && err != nil && redrawn.MatchString(err.Error()); tries++ {
			if err := p.mark(find).err; err != nil {
				return err
			}
			err = act(ctx)
		}
		return err
	})
}

// Press clicks the button, link, tab or drawn part with that text or name.
func (p *Page) Press(text string) *Page {
	return p.on("press "+text, "e2e.press("+quoted(text)+")", func(ctx context.Context) error {
		if err := chromedp.Do(ctx, chromedp.ScrollIntoView(marked), chromedp.Click(marked)); err != nil {
			return err
		}
		if missed, err := chromedp.Run(ctx, chromedp.Evaluate[bool](`window.e2eHit === false`)); err == nil && missed {
			return errMissed
		}
		return nil
	})
}

// errMissed is that of a press beside what moved just then.
var errMissed = errors.New("pressed beside it")

// Fill types into the field with that label, in place of what is there.
func (p *Page) Fill(label, value string) *Page {
	return p.on("fill "+label, "e2e.field("+quoted(label)+")", func(ctx context.Context) error {
		kind, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[data-e2e]").type`))
		if err != nil {
			return err
		}
		if kind == "date" || kind == "datetime-local" {
			// Such a field takes keys in the browser's locale; set it as its picker does.
			_, err := chromedp.Run(ctx, chromedp.Evaluate[bool](fmt.Sprintf(`(() => { const e = document.querySelector("[data-e2e]");
				Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value").set.call(e, %s);
				e.dispatchEvent(new Event("input", { bubbles: true })); return true; })()`, quoted(value))))
			return err
		}
		keys := value
		if value == "" {
			keys = "\b"
		}
		for range 3 { // on a busy machine keys are sent twice now and then
			_, err = chromedp.Run(ctx, chromedp.Evaluate[bool](`document.querySelector("[data-e2e]").select() ?? true`))
			if err == nil {
				err = chromedp.Do(ctx, chromedp.SendKeys(marked, keys))
			}
			if err != nil {
				return err
			}
			if is, err := chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector("[data-e2e]")?.value ?? ""`)); err != nil || value == "" || is != value+value {
				return nil
			}
		}
		return nil
	})
}

// Choose picks the option that begins with text in the list with that label.
func (p *Page) Choose(label, text string) *Page {
	return p.until("choose "+text, script+fmt.Sprintf(` && (() => { const e = e2e.field(%s); const o = e && [...e.options].find((x) => x.text.startsWith(%s));
		if (!o) return false; Object.getOwnPropertyDescriptor(HTMLSelectElement.prototype, "value").set.call(e, o.value);
		e.dispatchEvent(new Event("change", { bubbles: true })); return true; })()`, quoted(label), quoted(text)))
}

// Type fills the field with that label, or picks what begins with value if it is a list.
func (p *Page) Type(label, value string) *Page {
	if p.text(script+fmt.Sprintf(` && (e2e.field(%s)?.tagName ?? "")`, quoted(label))) == "SELECT" {
		return p.Choose(label, value)
	}
	return p.Fill(label, value)
}

// Upload gives a file to the file field with that name.
func (p *Page) Upload(name, file string) *Page {
	return p.do("upload "+file, func(ctx context.Context) error {
		return chromedp.Do(ctx, chromedp.SetUploadFiles(chromedp.CSS(`input[aria-label="`+name+`"]`), []string{file}))
	})
}

// Key presses a key on the page.
func (p *Page) Key(key string) *Page {
	return p.do("key "+key, func(ctx context.Context) error { return chromedp.Do(ctx, chromedp.KeyEvent(key)) })
}

// Focus focuses the first element that a CSS selector finds.
func (p *Page) Focus(selector string) *Page {
	return p.do("focus "+selector, func(ctx context.Context) error {
		return chromedp.Do(ctx, chromedp.Focus(chromedp.CSS(selector)))
	})
}

// Drag takes the drawn thing by its middle and lets it go px to the right.
func (p *Page) Drag(selector string, px float64) *Page {
	p.until("see "+selector, fmt.Sprintf("!!document.querySelector(%q)", selector))
	return p.do("drag "+selector, func(ctx context.Context) error {
		at, err := chromedp.Run(ctx, chromedp.Evaluate[[]float64](fmt.Sprintf(`(async () => {
			const place = () => { const e = document.querySelector(%q); e.scrollIntoView({ block: "center" }); const r = e.getBoundingClientRect(); return [r.x + r.width / 2, r.y + r.height / 2]; };
			for (let last = [0, 0], still = 0; ; ) {
				const now = place();
				if ((still = now[0] === last[0] && now[1] === last[1] ? still + 1 : 0) === 3) return now;
				last = now;
				await new Promise((r) => setTimeout(r, 100));
			}
		})()`, selector), chromedp.EvalAwaitPromise))
		if err != nil {
			return err
		}
		left := chromedp.ButtonLeft
		return chromedp.Do(ctx, chromedp.MouseEvent(input.DispatchMouseEventTypeMousePressed, at[0], at[1], left),
			chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, at[0]+px/2, at[1], left),
			chromedp.MouseEvent(input.DispatchMouseEventTypeMouseMoved, at[0]+px, at[1], left),
			chromedp.MouseEvent(input.DispatchMouseEventTypeMouseReleased, at[0]+px, at[1], left))
	})
}

// See waits until the page shows text.
func (p *Page) See(text string) *Page {
	return p.until("see "+text, `document.body.innerText.replace(/\s+/g, " ").includes(`+quoted(text)+`)`)
}

// SeeIn waits until an element that selector finds shows text.
func (p *Page) SeeIn(selector, text string) *Page {
	return p.until("see "+text+" in "+selector,
		fmt.Sprintf(
			`[...document.querySelectorAll(%s)].some((e) => (e.textContent ?? "").replace(/\s+/g, " ").includes(%s))`,
			quoted(selector), quoted(text)))
}

// Kept waits until a bench has kept what was changed on it.
func (p *Page) Kept() *Page {
	return p.until("see that it is kept",
		`[...document.querySelectorAll("[role=status]")].some((e) => e.textContent === "kept")`)
}

// Text returns what the first element that selector finds shows.
func (p *Page) Text(selector string) (text string) {
	p.until("find "+selector, "!!document.querySelector("+quoted(selector)+")")
	p.do("read "+selector, func(ctx context.Context) (err error) {
		text, err = chromedp.Run(ctx, chromedp.Evaluate[string](`document.querySelector(`+quoted(selector)+
			`).innerText`))
		return err
	})
	return text
}

// Path returns the path and query that the tab is at.
func (p *Page) Path() (path string) {
	p.do("read the address", func(ctx context.Context) (err error) {
		path, err = chromedp.Run(ctx, chromedp.Evaluate[string]("location.pathname + location.search"))
		return err
	})
	return path
}

// Shot writes a PNG of the window to file, or of the whole page.
func (p *Page) Shot(file string, whole bool) *Page {
	return p.do("picture "+file, func(ctx context.Context) error {
		if _, err := chromedp.Run(ctx,
			chromedp.Evaluate[bool]("document.fonts.ready.then(() => new Promise((r) => setTimeout(() => r(true), 150)))", chromedp.EvalAwaitPromise)); err != nil {
			return err
		}
		take := chromedp.CaptureScreenshot()
		if whole {
			if _, err := chromedp.Run(ctx, chromedp.Evaluate[bool]("scrollTo(0, 0), true")); err != nil {
				return err
			}
			take = chromedp.FullScreenshot(100)
		}
		png, err := chromedp.Run(ctx, take)
		if err != nil {
			return err
		}
		return os.WriteFile(file, png, 0o644)
	})
}
