/* Asks what a job's page will ask first, while its script is still on its way; `src/api/reach.ts` takes the answers. */
(() => {
  /** What is asked at once of a job whose step in hand it is; a test sees that each is wanted. */
  const PARTS = {
    recognise: ["key"],
    choose: ["candidates?page=1&size=12"],
    make_safe: ["make-safe"],
    record: ["record", "boards/original", "comparison"],
    carry_over: ["comparison", "boards/original", "boards/replacement", "wiring", "presses"],
    fit: ["fitting"],
    prove: ["proving", "comparison"],
    hand_over: ["hand-over"],
  };
  const LAST = `of ${localStorage.getItem("worthy-twin person") ?? ""} last job`;
  const early = new Map();
  const ask = (path) => {
    const address = new URL(path, location.origin).href;
    // what was asked for is asked for once, here or by the page
    if (!early.has(address)) early.set(address, fetch(address, { credentials: "same-origin" }).catch(() => null));
    return early.get(address);
  };
  const askParts = (job, step) => {
    for (const part of PARTS[step] ?? []) void ask(`/api/jobs/${job}/${part}`);
  };
  window.early = early;
  void ask("/api/session");
  const job = /^\/jobs\/([0-9a-f-]{36}(\.[1-6])?)$/.exec(location.pathname)?.[1];
  if (!job) return;
  void ask("/api/steps-done");
  // a job that was looked at last is most often where it was: what its step asks is asked beside the job itself
  const [last, step] = (localStorage.getItem(LAST) ?? "").split(" ");
  const sheet = ask(`/api/jobs/${job}`);
  if (last === job) askParts(job, step);
  void sheet.then(async (answer) => {
    if (!answer?.ok) return;
    const now = (await answer.clone().json()).step;
    localStorage.setItem(LAST, `${job} ${now}`);
    askParts(job, now);
  });
})();
