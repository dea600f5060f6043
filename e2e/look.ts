import { launch } from "./browser.ts";
import { startServer } from "./server.ts";
const server = await startServer(process.argv[2]);
const browser = await launch();
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on("console", (m) => m.type() === "error" && console.log("console:", m.text().slice(0, 300)));
page.on("pageerror", (e) => console.log("pageerror:", e.message.slice(0, 400)));
const settled = () => page.waitForFunction(() => document.body.innerText.includes("machining,") && !document.querySelector(".catching-up"), null, { timeout: 60_000 });
const openJob = async (name: string) => { await page.goto(server.url); await page.getByText(name).click(); await page.waitForURL(/\/job\//); await settled(); };
const shot = async (n: string) => { await page.waitForTimeout(900); await page.screenshot({ path: `/tmp/look/${n}.png` }); console.log(n); };
try {
  const steps = (await import(process.argv[3])).default;
  await steps({ page, server, settled, openJob, shot });
} catch (e) { console.log(String(e).slice(0, 600)); await shot("failed"); }
await browser.close();
await server.kill("SIGTERM");
