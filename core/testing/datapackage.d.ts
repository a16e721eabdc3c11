/** The part of the Frictionless library that the tests use; it ships without types. */
declare module 'datapackage' {
  interface Resource {
    name: string;
    tabular: boolean;
    read: (options: { keyed: boolean; relations: boolean }) => Promise<Record<string, unknown>[]>;
  }
  export class Package {
    static load(descriptor: object, options: { basePath: string; strict: boolean }): Promise<Package>;
    valid: boolean;
    resources: Resource[];
  }
}
