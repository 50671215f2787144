import type { Page } from '@playwright/test';
import AxeBuilder from '@axe-core/playwright';
import { addMove, choose, draftOn, expect, keepAs, openDemo, settled, test, typeSticking, written } from './fixture';

interface Draft {
  readonly recipe: {
    readonly moves: readonly { readonly move: string; readonly params: Record<string, unknown> }[];
  } | null;
}

/** What the Bench keeps in the browser's database. */
async function draftOf(page: Page, shelf: 'loop-shelf' | 'loop-shelf-demo' = 'loop-shelf'): Promise<Draft> {
  await written(page);
  return draftOn<Draft>(page, shelf);
}
const moves = async (page: Page): Promise<string[]> => (await draftOf(page)).recipe?.moves.map((m) => m.move) ?? [];
/** A phrase of the demo on the Bench, drawn. */
async function openPhrase(page: Page, id: string): Promise<void> {
  await openDemo(page, `/bench/${id}`);
  await expect(stems(page).first()).toBeVisible();
}
const ribbon = (page: Page) => page.getByRole('application');
const stems = (page: Page) => page.locator('ls-ribbon-editor .stem');

test('a fill made with the keyboard alone', async ({ page }) => {
  await page.goto('/bench?fresh=1');
  await expect(page.getByRole('heading', { name: 'Type a sticking' })).toBeVisible();
  await page.keyboard.press('Shift+R');
  await page.keyboard.type('! l l R K');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  await page.keyboard.press('/');
  await page.keyboard.type('fill 2 bars close with R L');
  await page.keyboard.press('Enter');
  await page.keyboard.type('right accents to the crash with kick under');
  await page.keyboard.press('Enter');
  await page.keyboard.press('Escape');
  await page.keyboard.press('e');
  await page.keyboard.press('End');
  await page.keyboard.type('K');
  await page.keyboard.press('Escape');
  await page.locator('#place').focus();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press('Space');
  await page.keyboard.press('k');
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await dialog.getByLabel('Name').fill('Net hauling');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Net hauling');
  expect(await moves(page)).toEqual(['fit', 'voice', 'touch']);
});

test('a fill made with the mouse alone', async ({ page }) => {
  await page.goto('/bench?fresh=1');
  await page.getByRole('button', { name: /^Five stroke roll/ }).click();
  await page.getByRole('button', { name: '+ Add a move' }).click();
  await page.getByRole('group', { name: 'Moves' }).getByRole('button', { name: 'Fill the bars' }).click();
  await page.getByRole('button', { name: '+ Add a move' }).click();
  await page.getByRole('group', { name: 'Moves' }).getByRole('button', { name: 'Move it on the kit' }).click();
  await page.getByRole('group', { name: 'Plays on' }).getByRole('button', { name: 'Floor tom' }).click();
  await page.getByRole('button', { name: 'Done' }).click();
  const box = (await ribbon(page).boundingBox())!;
  await page.mouse.click(box.x + 12, box.y + 60);
  await page.getByRole('group', { name: 'Limb' }).getByRole('button', { name: 'kick foot', exact: true }).click();
  await page.getByRole('group', { name: 'Stick height' }).getByRole('button', { name: 'accent' }).click();
  await page.getByRole('button', { name: 'Play' }).click();
  await expect(page.locator('ls-ribbon-editor .playhead')).toHaveCount(1);
  await page.getByRole('button', { name: 'Stop' }).click();
  await page.getByRole('button', { name: 'Keep it' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByText('is on the shelf.')).toBeVisible();
  // The kick is a stroke written by hand, the accent a matter of its own: two cards.
  expect(await moves(page)).toEqual(['fit', 'voice', 'touch', 'touch']);
});

test('editing on the ribbon is a touch move: letters, a stem pulled up, a stroke pulled sideways, copy and put down', async ({
  page,
}) => {
  await typeSticking(page, 'R L R L');
  await page.keyboard.press('e');
  await page.keyboard.type('l!');
  await expect(page.getByRole('article', { name: /1 to the left hand, accented/ })).toBeVisible();
  expect(await moves(page)).toEqual(['touch']);
  // The second stroke, a left, hangs below the line: its end is pulled further down.
  const head = stems(page).nth(1).locator('.head');
  const at = (await head.boundingBox())!;
  await page.mouse.move(at.x + 6, at.y + 6);
  await page.mouse.down();
  await page.mouse.move(at.x + 6, at.y + 40, { steps: 5 });
  await page.mouse.up();
  await expect(page.locator('ls-ribbon-editor title').nth(1)).toHaveText(
    'the e of 1 in bar 1, left hand, accent, snare',
  );
  // The third is pulled a slot to the right, onto the fourth of another hand.
  const third = (await stems(page).nth(2).locator('.head').boundingBox())!;
  const slot = (await stems(page).nth(3).locator('.head').boundingBox())!.x - third.x;
  await page.mouse.move(third.x + 6, third.y + 14);
  await page.mouse.down();
  await page.mouse.move(third.x + 6 + slot, third.y + 15, { steps: 6 });
  await page.mouse.up();
  await expect(page.locator('ls-ribbon-editor title', { hasText: 'the a of 1 in bar 1, right hand' })).toHaveCount(1);
  // Strokes that were written, and the height of one: two matters, each with a card.
  expect(await moves(page)).toEqual(['touch', 'touch']);
  await page.keyboard.press('e');
  await page.keyboard.press('Control+a');
  await page.keyboard.press('Control+c');
  await page.keyboard.press('Escape');
  await page.locator('#place').focus();
  await page.keyboard.press('4');
  await page
    .getByRole('link', { name: 'New phrase' })
    .or(page.getByRole('button', { name: 'New phrase' }))
    .first()
    .click();
  await page.getByRole('textbox', { name: 'Sticking' }).fill('- - - - - - - -');
  await page.getByRole('button', { name: 'Put it on the Bench' }).click();
  await page.keyboard.press('e');
  await page.keyboard.press('Control+v');
  await expect(stems(page)).toHaveCount(4);
});

test('cards are put in another order by dragging, and what follows is worked out anew', async ({ page }) => {
  await typeSticking(page, 'R L R');
  for (const words of ['kick at the end', 'swap the hands']) {
    await page.keyboard.press('/');
    await page.keyboard.type(words);
    await page.keyboard.press('Enter');
  }
  await page.keyboard.press('Escape');
  const grips = page.locator('.grip');
  const [from, to] = [(await grips.nth(1).boundingBox())!, (await grips.nth(0).boundingBox())!];
  await page.mouse.move(from.x + 5, from.y + 8);
  await page.mouse.down();
  await page.mouse.move(from.x + 5, from.y - 10, { steps: 4 });
  await page.mouse.move(to.x + 5, to.y - 4, { steps: 8 });
  await page.mouse.up();
  await expect.poll(() => moves(page)).toEqual(['mirror', 'insert']);
});

test('the box takes words: ten phrases', async ({ page }) => {
  await typeSticking(page, 'R L L R');
  const said: readonly (readonly [string, string])[] = [
    ['kick after every 4', 'Add a kick after every 4 slots'],
    ['fill 2 bars end on 3&', 'Fill 2 bars, ending on 3&, cut the last one'],
    ['accents every 5', 'Accent every 5 slots'],
    ['ghost the lefts', 'Ghost lefts'],
    ['rights to the high tom', 'Send rights to the high tom'],
    ['right accents to the crash with kick under', 'Send right accents to the right crash, kick under them'],
    ['swap the hands', 'Swap the hands'],
    ['later by 2', 'Displace it 2 slots later'],
    ['leave out the kicks in bar 2', 'Remove kicks in bar 2'],
    ['land with the crash', 'Land on the next 1 with the right crash and the kick'],
  ];
  for (const [words, sentence] of said) {
    await page.keyboard.press('/');
    await page.getByRole('combobox', { name: 'Type a change' }).fill(words);
    await expect(page.getByRole('option').first()).toContainText(sentence);
    // Of several meanings one is chosen first.
    if ((await page.getByRole('option').count()) > 1) await page.keyboard.press('ArrowDown');
    await page.keyboard.press('Enter');
    await expect(page.getByRole('article', { name: new RegExp(`: ${sentence.replace(/[&]/g, '.')}`) })).toBeVisible();
    await page.keyboard.press('Escape');
  }
  expect(await moves(page)).toHaveLength(10);
  await page.keyboard.press('/');
  await page.getByRole('combobox', { name: 'Type a change' }).fill('purple monkey');
  await expect(page.getByText('is not known here.')).toBeVisible();
});

test('fifty actions are undone and redone to the same recipe, across a reload too', async ({ page }) => {
  await typeSticking(page, '(R L R R L R L L)x2');
  const start = (await draftOf(page)).recipe;
  await page.keyboard.press('e');
  let seed = 7;
  const pick = <T>(list: readonly T[]): T => {
    seed = (seed * 16807) % 2147483647;
    return list[seed % list.length]!;
  };
  const keys = [
    'R',
    'l',
    'K',
    'r',
    '-',
    'Delete',
    'ArrowUp',
    'ArrowDown',
    'ArrowRight',
    'ArrowLeft',
    'Home',
    'f',
    '!',
    'Alt+ArrowRight',
    'Shift+ArrowRight',
  ];
  for (let i = 0; i < 50; i++) await page.keyboard.press(pick(keys).replace(/^([RK])$/, 'Shift+$1'));
  const end = (await draftOf(page)).recipe;
  expect(end).not.toEqual(start);
  await page.keyboard.press('Escape');
  let undone = 0;
  while (
    (await page.getByRole('button', { name: 'Undo' }).isEnabled()) &&
    JSON.stringify((await draftOf(page)).recipe) !== JSON.stringify(start)
  ) {
    await page.keyboard.press('Control+z');
    undone++;
    if (undone === 10) await page.reload();
    await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
  }
  expect(undone).toBeGreaterThan(10);
  expect((await draftOf(page)).recipe).toEqual(start);
  for (let i = 0; i < undone; i++) await page.keyboard.press('Control+y');
  expect((await draftOf(page)).recipe).toEqual(end);
});

test('every phrase of the demo is drawn on the staff, with all its strokes', async ({ page }) => {
  test.setTimeout(240_000);
  await openDemo(page);
  const many = await page.evaluate(
    () =>
      new Promise<string[]>((resolve) => {
        const open = indexedDB.open('loop-shelf-demo');
        open.onsuccess = () => {
          const all = open.result.transaction('phrases').objectStore('phrases').getAllKeys();
          all.onsuccess = () => resolve(all.result as string[]);
        };
      }),
  );
  expect(many.length).toBeGreaterThan(20);
  for (const id of many) {
    await page.evaluate((to) => {
      history.pushState(null, '', to);
      dispatchEvent(new PopStateEvent('popstate'));
    }, `/bench/${id}`);
    await expect(page).toHaveURL(new RegExp(`${id}$`));
    await expect
      .poll(async () => {
        const label = await page.locator('ls-ribbon-editor [role=img]').getAttribute('aria-label');
        const drawn = await page.locator('ls-staff').getAttribute('data-drawn');
        const many = Number(/(\d+) stroke/.exec(label ?? '')?.[1] ?? -1);
        const lead = Number(/(\d+) before the 1/.exec(label ?? '')?.[1] ?? 0);
        return `${id}: ${drawn === String(many + lead)}`;
      })
      .toBe(`${id}: true`);
    await expect(page.getByText('does not fit on a staff')).toHaveCount(0);
  }
});

test('the page to print has one staff and one ribbon, and nothing of the Bench', async ({ page }) => {
  await openPhrase(page, 'salt-1');
  await page.keyboard.press('p');
  await expect(page.getByRole('button', { name: 'Print', exact: true })).toBeVisible();
  await expect(page.locator('.sheet-dialog ls-staff svg')).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  const shown = (selector: string) =>
    page.locator(selector).evaluateAll((all) => all.filter((e) => e.getClientRects().length > 0).length);
  expect(await shown('ls-ribbon svg')).toBe(1);
  expect(await shown('ls-staff svg')).toBe(1);
  expect(await shown('button')).toBe(0);
  await expect(page.locator('.sheet-dialog h1')).toHaveText('Glass over five');
  await page.emulateMedia({ media: 'screen' });
  for (const what of ['ribbon', 'staff']) {
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: `Save the ${what} as SVG` }).click(),
    ]);
    expect(file.suggestedFilename()).toBe(`Glass over five ${what}.svg`);
    const chunks: Buffer[] = [];
    for await (const chunk of await file.createReadStream()) chunks.push(chunk as Buffer);
    expect(Buffer.concat(chunks).toString()).toMatch(/^<svg[^]*<\/svg>$/);
  }
});

test('stepping through the recipe plays each stage; another phrase is compared and heard without losing the beat', async ({
  page,
}) => {
  await openPhrase(page, 'salt-1');
  await expect(stems(page)).toHaveCount(23);
  for (let i = 0; i < 5; i++) await page.keyboard.press(',');
  await expect(page.getByText('Step 1 of 6: The sticking')).toBeVisible();
  await expect(stems(page)).toHaveCount(4);
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
  await page.keyboard.press('.');
  await expect(page.getByText('Step 2 of 6: Add a kick at the end')).toBeVisible();
  await page.getByRole('button', { name: 'Whole' }).click();
  await page.keyboard.press('c');
  await choose(page, 'Phrase to compare with', 3);
  await expect(page.locator('ls-compare-panel ls-ribbon svg')).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('x');
  await expect(page.getByRole('button', { name: /Hearing the other/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible();
});

test('a chosen stretch goes round, at half speed, without the feet', async ({ page }) => {
  await openPhrase(page, 'salt-1');
  await page.keyboard.press('e');
  for (let i = 0; i < 4; i++) await page.keyboard.press('Shift+ArrowRight');
  await expect(page.getByText('5 strokes chosen').first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Loop: chosen' })).toBeVisible();
  await page.getByRole('button', { name: 'Half speed' }).click();
  await page.getByRole('button', { name: 'Mix: all' }).click();
  await page.getByRole('button', { name: 'Only hands' }).click();
  await page.locator('h1').click();
  await page.keyboard.press('Space');
  await expect(page.locator('ls-ribbon-editor .playhead').first()).toBeAttached();
  // Frame by frame, until it began anew twice.
  const seen = await page.evaluate(
    () =>
      new Promise<number[]>((resolve) => {
        const all: number[] = [];
        let rounds = 0;
        const look = (): void => {
          const head = document.querySelector('ls-ribbon-editor .playhead');
          const x = head ? new DOMMatrix(getComputedStyle(head).transform).e : NaN;
          if (x < (all.at(-1) ?? 0)) rounds++;
          if (Number.isFinite(x)) all.push(x);
          if (rounds === 2) resolve(all);
          else requestAnimationFrame(look);
        };
        look();
      }),
  );
  const wide = (await ribbon(page).boundingBox())!.width;
  expect(Math.max(...seen)).toBeLessThan(wide * 0.45);
});

test('a rhythm tapped on two keys becomes strokes on even slots', async ({ page }) => {
  await page.goto('/bench?fresh=1');
  await expect(page.getByRole('heading', { name: 'Or tap a rhythm' })).toBeVisible();
  // A keyboard stamps its strokes with the time they were struck, whatever the page is busy with; so do these.
  await page.evaluate(() => {
    let at = performance.now();
    for (const [key, wait] of [
      ['j', 200],
      ['f', 200],
      ['j', 400],
      ['f', 200],
      ['j', 0],
    ] as const) {
      const event = new KeyboardEvent('keydown', { key, code: `Key${key.toUpperCase()}`, bubbles: true });
      Object.defineProperty(event, 'timeStamp', { value: at });
      document.body.dispatchEvent(event);
      at += wait;
    }
  });
  await expect(page.getByText('R L R - L R')).toBeVisible();
  await page.getByRole('button', { name: 'Put the rhythm on the Bench' }).click();
  await expect(stems(page)).toHaveCount(5);
});

test('a worked example is taken apart; a card open lets strokes be picked on the ribbon and says them in words', async ({
  page,
}) => {
  await page.goto('/bench?fresh=1');
  await page.getByRole('button', { name: 'Take it apart' }).click();
  await page.getByRole('button', { name: /^Send right taps to the high tom/ }).click();
  await expect(page.getByText('Now: right taps.')).toBeVisible();
  const taps = page.locator('ls-ribbon-editor .chosen');
  const before = await taps.count();
  await stems(page).nth(3).locator('.head').click();
  await expect(taps).toHaveCount(before - 1);
  await expect(page.getByText('Now: right taps.')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(page.getByText('Now: right taps.')).toBeVisible();
});

test('a screen reader hears the place of the cursor; axe finds nothing with everything open', async ({ page }) => {
  await openPhrase(page, 'salt-1');
  await page.keyboard.press('e');
  await page.keyboard.press('ArrowRight');
  await expect(page.locator('[aria-live=polite]').first()).toHaveText('the & of 1 in bar 1, left hand, ghost, snare');
  const check = async (): Promise<void> => {
    const { violations } = await new AxeBuilder({ page }).withTags(['wcag2a', 'wcag2aa', 'wcag21aa']).analyze();
    expect(violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.target.join(' ')).join(' | ')}`)).toEqual([]);
  };
  await page.getByRole('button', { name: 'Mix: all' }).click();
  await page.keyboard.press('/');
  await page.keyboard.type('fill 4 bars');
  await check();
  await page.keyboard.press('Escape');
  await page.getByRole('tab', { name: 'Compare C' }).click();
  await choose(page, 'Phrase to compare with', 2);
  await page.getByRole('button', { name: /^Fill 2 bars/ }).click();
  await check();
  await page.locator('h1').click();
  await page.keyboard.press('p');
  await expect(page.locator('.sheet-dialog ls-staff svg')).toBeVisible();
  await check();
});

test('a dialog that is still opening does not take the letters from the field that was chosen', async ({ page }) => {
  await typeSticking(page, 'R L R L');
  await page.getByRole('button', { name: 'Keep it' }).first().click();
  const dialog = page.getByRole('dialog', { name: 'Keep it' });
  await dialog.getByLabel('Goal tempo').focus();
  await expect(page.locator('.p-dialog-enter-active')).toHaveCount(0);
  await settled(page);
  await page.keyboard.type('360');
  await expect(dialog.getByLabel('Goal tempo')).toHaveValue('360');
  await expect(dialog.getByLabel('Name')).not.toHaveValue(/360/);
});

test('the first field of a dialog has the keys, and so has the guide', async ({ page }) => {
  await typeSticking(page, 'R L R L');
  await page.getByRole('button', { name: 'Keep it' }).first().click();
  await expect(page.getByRole('dialog', { name: 'Keep it' }).getByLabel('Name')).toBeFocused();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('Shift+?');
  await expect(page.getByRole('complementary', { name: 'Guide' })).toBeFocused();
});

test('keeping a phrase leaves the Bench as it is: it sounds on, and what is shown stays shown', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await addMove(page, 'Fill the bars');
  await page.getByRole('button', { name: /^Lines/ }).click();
  await page.getByRole('button', { name: 'Sung line' }).click();
  await page.getByRole('button', { name: 'Variants' }).click();
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await keepAs(page, 'Sounding on');
  await expect(page).toHaveURL(/\/bench\/[\w-]{32,36}$/);
  await expect(page.getByRole('heading', { name: 'Sounding on' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Sung line' })).toHaveAttribute('aria-pressed', 'true');
  await expect(page.locator('ls-variants-sheet')).toBeVisible();
  // Another phrase is another matter.
  await page.goto('/bench?fresh=1');
  await expect(page.getByRole('textbox', { name: 'Sticking' })).toBeVisible();
});

test('a phrase swings: said in words, on the staff, kept, heard in the drill; undone', async ({ page }) => {
  await typeSticking(page, '(R L R L)x4');
  await choose(page.locator('ls-swing'), 'Feel', '16ths swung');
  await expect(page.locator('header').first()).toContainText('16ths swung 67%');
  await page.getByLabel('Swing in percent').fill('60');
  await page.getByLabel('Swing in percent').press('Enter');
  await expect(page.locator('header').first()).toContainText('16ths swung 60%');
  await expect(page.locator('ls-staff svg').getByText('16ths swung 60%').first()).toBeVisible();
  await keepAs(page, 'Swung', '120');
  await page.reload();
  await expect(page.locator('header').first()).toContainText('16ths swung 60%');
  await page.goto('/');
  await expect(page.locator('ls-strip').first()).toContainText('16ths swung 60%');
});

test('a hand edit in a fill: only here, or in every repeat; asked once, remembered', async ({ page }) => {
  await typeSticking(page, 'R l l R');
  await addMove(page, 'Fill the bars');
  await expect(stems(page)).toHaveCount(16);
  await page.locator('h1').click();
  await page.keyboard.press('e');
  await page.keyboard.press('k');
  await expect(stems(page)).toHaveCount(15);
  await expect(page.getByText('Only this repeat was changed.')).toBeVisible();
  await page.getByRole('button', { name: 'In every repeat' }).last().click();
  await expect(stems(page)).toHaveCount(12);
  await expect(page.getByRole('button', { name: 'In every repeat', pressed: true })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('button', { name: 'In every repeat', pressed: true })).toBeVisible();
  await page.locator('h1').click();
  await page.keyboard.press('e');
  await page.keyboard.press('r');
  await expect(stems(page)).toHaveCount(16);
});
