// Tests read dates as they are written in Britain, wherever they run.
if (globalThis.navigator)
  Object.defineProperty(globalThis.navigator, "languages", { value: ["en-GB"], configurable: true });

if (globalThis.document) {
  const { configure } = await import("@testing-library/react");
  configure({ asyncUtilTimeout: 8000 }); // beside the Go tests a form takes its time
}

export {};
