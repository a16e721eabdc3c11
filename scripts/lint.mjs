// Types and lint of the whole project over one program: what the compiler found out of every type, the rules that ask
// for types needn't find out again. Exit code: 1 types, 2 lint, 3 both. For an editor eslint.config.js is enough.
import { fileURLToPath } from 'node:url';
import { ESLint } from 'eslint';
import ts from 'typescript';

const root = fileURLToPath(new URL('..', import.meta.url));
const host = {
  ...ts.sys,
  onUnRecoverableConfigFileDiagnostic: (d) => {
    throw new Error(ts.flattenDiagnosticMessageText(d.messageText, '\n'));
  },
};

const { fileNames, options, errors } = ts.getParsedCommandLineOfConfigFile(`${root}tsconfig.json`, {}, host);
// With its parents: lint walks up from a node, too.
const compilerHost = ts.createCompilerHost(options, true);
const program = ts.createProgram({ rootNames: fileNames, options, host: compilerHost });
const found = [...errors, ...ts.getPreEmitDiagnostics(program)];
if (found.length > 0) {
  console.log(
    ts.formatDiagnosticsWithColorAndContext(found, {
      getCanonicalFileName: (f) => f,
      getCurrentDirectory: () => root,
      getNewLine: () => '\n',
    }),
  );
}

const eslint = new ESLint({
  cwd: root,
  overrideConfig: {
    files: ['**/*.ts', '**/*.tsx'],
    languageOptions: { parserOptions: { projectService: false, programs: [program] } },
  },
});
const results = await eslint.lintFiles(['.']);
const said = await (await eslint.loadFormatter('stylish')).format(results);
if (said) console.log(said);
const faults = results.some((r) => r.errorCount + r.warningCount > 0);
process.exitCode = (found.length > 0 ? 1 : 0) + (faults ? 2 : 0);
