// Which files a page will ask for: said in its head, so that they come with the first ones and not one after another.

/** @param {string} path of React Router's own kind @returns {string} what addresses of it look like */
const pattern = (path) => `^${path.replace(/\/$/, '').replace(/:[^/]+/g, '[^/]+')}/?$`;

/**
 * The scripts of each address beside those every page has.
 *
 * @param {{ routes: Record<string, { id: string, parentId?: string, path?: string, index?: boolean, module: string, imports?: string[] }> }} manifest
 *   as React Router's build writes it
 * @param {ReadonlySet<string>} there scripts that the page names anyway
 * @returns {{ pattern: string, files: string[] }[]}
 */
export function preloadsOf(manifest, there) {
  const routes = Object.values(manifest.routes);
  const parents = new Set(routes.map((r) => r.parentId));
  const lineOf = (route) => {
    const parent = manifest.routes[route.parentId ?? ''];
    return parent ? [...lineOf(parent), route] : [route];
  };
  return routes
    .filter((r) => r.index || (r.path && !parents.has(r.id)))
    .map((route) => {
      const line = lineOf(route);
      const files = new Set(line.flatMap((r) => [r.module, ...(r.imports ?? [])]));
      return {
        pattern: pattern(`/${line.flatMap((r) => r.path || []).join('/')}`),
        files: [...files].filter((f) => !there.has(f)),
      };
    });
}

/**
 * The page with a script in its head that names the files of the address it was opened at.
 *
 * @param {string} html @param {Parameters<typeof preloadsOf>[0]} manifest
 */
export function withPreloads(html, manifest) {
  const there = new Set([...html.matchAll(/href="(\/assets\/[^"]+\.js)"/g)].map((m) => m[1]));
  const pages = preloadsOf(manifest, there);
  const files = [...new Set(pages.flatMap((p) => p.files))];
  const table = pages.map((p) => [p.pattern, p.files.map((f) => files.indexOf(f))]);
  const name = (f) => f.slice('/assets/'.length, -'.js'.length);
  const script =
    `for(const[p,l]of ${JSON.stringify(table)})if(new RegExp(p).test(location.pathname))` +
    `for(const i of l){const k=document.createElement("link");k.rel="modulepreload";` +
    `k.href="/assets/"+${JSON.stringify(files.map(name))}[i]+".js";document.head.append(k)}`;
  return html.replace('</head>', () => `<script>${script}</script></head>`);
}

/** React Router's manifest as its script sets it. @param {string} script */
export function manifestIn(script) {
  const json = /__reactRouterManifest=(\{[\s\S]*\});?\s*$/.exec(script)?.[1];
  if (!json) throw new Error('The build’s manifest isn’t where it was.');
  return JSON.parse(json);
}
