// Tests read dates as they are written in Britain, wherever they run.
if (globalThis.navigator) Object.defineProperty(globalThis.navigator, "languages", { value: ["en-GB"], configurable: true });
