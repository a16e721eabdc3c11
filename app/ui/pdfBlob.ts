import type { TDocumentDefinitions } from 'pdfmake/interfaces';

/** Makes the PDF; its maker and fonts are loaded when they are first needed. */
export async function pdfBlob(document: TDocumentDefinitions): Promise<Blob> {
  const [{ default: pdfMake }, { default: fonts }] = await Promise.all([
    import('pdfmake/build/pdfmake'),
    import('pdfmake/build/vfs_fonts'),
  ]);
  pdfMake.addVirtualFileSystem(fonts);
  return pdfMake.createPdf(document).getBlob();
}
