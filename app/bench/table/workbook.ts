import { type Grid, cellText } from '~core/table/sheet';

/** The first sheet of a workbook as text. @returns null where it can't be read */
export async function workbookGrid(file: File): Promise<Grid | null> {
  const { default: readXlsx } = await import('read-excel-file/browser');
  const sheets = await readXlsx(file).catch(() => null);
  return sheets?.[0]?.data.map((row) => row.map(cellText)) ?? null;
}
