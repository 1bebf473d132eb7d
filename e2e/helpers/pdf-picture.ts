import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Browser } from '@playwright/test';

const pdfjs = dirname(createRequire(import.meta.url).resolve('pdfjs-dist/package.json'));
const PAGE = `<canvas style="display:block"></canvas><script type="module">
  import * as pdfjs from './legacy/build/pdf.mjs';
  pdfjs.GlobalWorkerOptions.workerSrc = './legacy/build/pdf.worker.mjs';
  const page = await (await pdfjs.getDocument('./paper.pdf').promise).getPage(1);
  const viewport = page.getViewport({ scale: 3 });
  const canvas = Object.assign(document.querySelector('canvas'), { width: viewport.width, height: viewport.height });
  await page.render({ canvas, viewport }).promise;
  document.title = 'drawn';
</script>`;

/** The upper left corner of a paper's first page as a JPEG of 640 × 480, three pixels to a point. */
export async function pdfPicture(browser: Browser, pdf: Buffer): Promise<Buffer> {
  const page = await browser.newPage({ viewport: { width: 640, height: 480 } });
  // Nothing of it comes from a network.
  await page.route('http://paper.test/**', (route) => {
    const { pathname } = new URL(route.request().url());
    if (pathname === '/') return route.fulfill({ contentType: 'text/html', body: PAGE });
    if (pathname === '/paper.pdf') return route.fulfill({ contentType: 'application/pdf', body: pdf });
    return route.fulfill({ contentType: 'text/javascript', body: readFileSync(join(pdfjs, pathname)) });
  });
  await page.goto('http://paper.test/');
  await page.waitForFunction(() => document.title === 'drawn');
  const picture = await page.screenshot({ type: 'jpeg', quality: 95 });
  await page.close();
  return picture;
}
