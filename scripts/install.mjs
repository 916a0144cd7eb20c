// Brings everything a command needs into place, and nothing twice: Debian packages, npm packages, builds.
// usage: node scripts/install.mjs [node|web|check]
import { execFileSync, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

export const root = fileURLToPath(new URL("..", import.meta.url));
const stamps = join(root, ".stamps");

/** Says what is being done, so that nobody waits without knowing for what. */
export function say(text) {
  console.log(`• ${text}`);
}

/** Debian packages by the file that shows they are there. */
const PACKAGES = {
  postgresql: () => existsSync("/usr/lib/postgresql"),
  chromium: () => existsSync("/usr/bin/chromium"),
};

export function installDebian(names) {
  const missing = names.filter((name) => !PACKAGES[name]());
  if (missing.length === 0) return;
  say(`installing ${missing.join(" and ")} from Debian's packages (a minute or two)`);
  const asRoot = process.getuid() === 0 ? [] : ["sudo"];
  const apt = (...args) =>
    spawnSync([...asRoot, "apt-get"][0], [...[...asRoot, "apt-get"].slice(1), "-qq", ...args], {
      stdio: ["ignore", "ignore", "inherit"],
      env: { ...process.env, DEBIAN_FRONTEND: "noninteractive" },
    }).status === 0;
  if (!apt("update") || !apt("install", "-y", ...missing)) {
    fail(`${missing.join(", ")} could not be installed. Install it yourself (apt-get install ${missing.join(" ")}) and start again.`);
  }
}

export function fail(text) {
  console.error(`\n${text}`);
  process.exit(1);
}

/** A hash over the contents of files and folders. */
function hashOf(paths) {
  const hash = createHash("sha256");
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(path.slice(root.length)).update(readFileSync(path));
  };
  paths.forEach((path) => visit(join(root, path)));
  return hash.digest("hex");
}

/** Does some work unless its inputs are as they were when it was last done and its result is still there. */
function once(name, inputs, result, words, work) {
  const stamp = join(stamps, name);
  const hash = hashOf(inputs);
  if (existsSync(stamp) && readFileSync(stamp, "utf8") === hash && existsSync(join(root, result))) return;
  say(words);
  work();
  mkdirSync(stamps, { recursive: true });
  writeFileSync(stamp, hash);
}

function run(command, ...args) {
  try {
    execFileSync(command, args, { cwd: root, stdio: ["ignore", "inherit", "inherit"] });
  } catch {
    fail(`“${command} ${args.join(" ")}” failed; what it said is above.`);
  }
}

export function installPackages() {
  once("packages", ["package-lock.json", "patches"], "node_modules", "installing npm packages (a minute or two)", () => {
    // A patch fits a package as it comes, not one that an earlier patch has changed.
    for (const patch of readdirSync(join(root, "patches")))
      rmSync(join(root, "node_modules", patch.split("+")[0]), { recursive: true, force: true });
    // Not npm ci: it refuses a lock file that leaves out builds for other platforms, which some registries do not carry.
    run("npm", "install", "--no-save", "--silent", "--no-audit", "--no-fund");
  });
}

export function buildNode() {
  installPackages();
  once("node", ["src", "cli", "scripts", "package-lock.json"], "dist", "building the command line and the workers", () => {
    run("node", "scripts/build-kernels.mjs");
    run("node", "scripts/build-node.mjs");
  });
}

export function buildWeb() {
  buildNode();
  once(
    "web",
    ["src", "next.config.ts", "tsconfig.json", "package-lock.json"],
    ".next/BUILD_ID",
    "building the application (a minute)",
    () => run("npx", "--no-install", "next", "build"),
  );
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const [, , goal = "web"] = process.argv;
  if (goal === "node") buildNode();
  else {
    installDebian(goal === "check" ? ["postgresql", "chromium"] : ["postgresql"]);
    buildWeb();
  }
}
