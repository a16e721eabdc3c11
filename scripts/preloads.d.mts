export interface RouteManifest {
  routes: Record<
    string,
    { id: string; parentId?: string; path?: string; index?: boolean; module: string; imports?: string[] }
  >;
}

export function preloadsOf(
  manifest: RouteManifest,
  there: ReadonlySet<string>,
): { pattern: string; files: string[] }[];
export function withPreloads(html: string, manifest: RouteManifest): string;
export function manifestIn(script: string): RouteManifest;
