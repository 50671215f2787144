import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import { choose, expect, keepAs, openDemo, test, typeSticking, written } from './fixture';
import { OWN, play, sitting, standInPad } from './stand-in-pad';

/** The steps of a page's “Try it”, by what stands bold at their beginning. */
function stepsOf(page: string): readonly string[] {
  const text = readFileSync(`docs/guide/${page}.md`, 'utf8');
  const part = /## Try it\n([^]*?)(?=\n## |$)/.exec(text)?.[1] ?? '';
  return [...part.matchAll(/^\d+\. \*\*(.+?)\*\*/gm)].map((m) => (m[1] ?? '').replace(/[`_]/g, ''));
}

/** Follows a page step by step, as it is written today: a step that is worded anew is read again here. */
async function follow(page: string, steps: Readonly<Record<string, () => Promise<unknown>>>): Promise<void> {
  expect(Object.keys(steps)).toEqual(stepsOf(page));
  for (const [lead, act] of Object.entries(steps)) await test.step(lead, act);
}

const cards = (page: Page) => page.locator('.move');
const box = (page: Page) => page.getByRole('combobox', { name: 'Type a change' });
const ceiling = async (page: Page): Promise<number> =>
  Number(/ceiling (?:about )?(\d+)/.exec(await page.locator('ls-speed .top').innerText())?.[1]);

test('guide: your first fill', async ({ page }) => {
  await page.goto('/shelf');
  await expect(page.locator('h1')).toHaveText('Shelf');
  await follow('first-fill', {
    'Open the Bench': async () => {
      await page.keyboard.press('3');
      await page.getByRole('textbox', { name: 'Sticking' }).fill('R! l l R K');
      await page.getByRole('textbox', { name: 'Sticking' }).press('Enter');
      await expect(page.locator('ls-ribbon-editor .stem')).not.toHaveCount(0);
    },
    'Press /': async () => {
      await page.locator('h1').click();
      await page.keyboard.press('/');
      await page.keyboard.type('fill 2 bars, close with R L R L');
      await page.keyboard.press('Enter');
      await expect(cards(page)).toHaveCount(1);
    },
    'Press a slot': async () => {
      await page
        .locator('ls-ribbon-editor svg')
        .first()
        .click({ position: { x: 60, y: 90 } });
      await page.keyboard.press('Shift+K');
      await expect(cards(page)).toHaveCount(2);
      await page.keyboard.press('Escape');
    },
    'Press Space': async () => {
      await page.keyboard.press('Space');
      await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
      await page.keyboard.press('ArrowUp');
      await page.keyboard.press('Space');
      await expect(page.getByRole('button', { name: 'Stop', exact: true })).toHaveCount(0);
    },
    'Look at Speed': async () => expect.poll(() => ceiling(page)).toBeGreaterThan(40),
    'Keep it': () => keepAs(page, 'Rope', '120'),
    'Drill it': async () => {
      await page.keyboard.press('d');
      await expect(page).toHaveURL(/\/drill\//);
      await expect(page.getByRole('heading', { level: 1 })).toHaveText('Rope');
    },
  });
});

test('guide: a groove from a recording', async ({ page }) => {
  await page.goto('/shelf');
  await expect(page.locator('h1')).toHaveText('Shelf');
  await follow('listen', {
    'Open Listen': async () => {
      await page.keyboard.press('2');
      await page.getByRole('button', { name: 'a groove' }).click();
      await expect(page.getByText('strokes found')).toBeVisible();
    },
    'Drag over the wave': async () => {
      const wave = (await page.locator('ls-wave').nth(1).boundingBox())!;
      await page.mouse.move(wave.x + wave.width * 0.045, wave.y + 60);
      await page.mouse.down();
      await page.mouse.move(wave.x + wave.width * 0.3, wave.y + 60);
      await page.mouse.move(wave.x + wave.width * 0.44, wave.y + 60);
      await page.mouse.up();
      await expect(page.locator('.school').first()).toBeVisible();
    },
    'Press Space': async () => {
      await page.locator('h1').click();
      await page.keyboard.press('Space');
      await page.keyboard.press(',');
      await expect(page.getByRole('button', { name: '75%' })).toHaveAttribute('aria-pressed', 'true');
      await page.keyboard.press('Space');
    },
    'Press O': () => page.keyboard.press('o'),
    'Press ↓': async () => {
      await page.keyboard.press('ArrowDown');
      await expect(page.locator('.stroke.on')).toHaveCount(1);
      await page.keyboard.press('k');
      await expect(page.locator('.stroke.on')).toContainText('kick');
    },
    'Press Open on the Bench': async () => {
      await page.getByRole('button', { name: 'Open on the Bench' }).click();
      await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
    },
  });
});

test('guide: the ribbon and the recipe', async ({ page }) => {
  const stems = page.locator('ls-ribbon-editor .stem');
  let short = 0;
  await follow('ribbon-and-recipe', {
    'Type a sticking': () => typeSticking(page, 'R! l l R K'),
    'Press E': async () => {
      await page.locator('h1').click();
      for (const k of ['e', 'ArrowRight', 'Shift+L']) await page.keyboard.press(k);
      await expect(cards(page)).toHaveCount(1);
      await page.keyboard.press('Escape');
      short = await stems.count();
    },
    'Press /': async () => {
      await page.keyboard.press('/');
      await page.keyboard.type('fill 2 bars, close with R L');
      await page.keyboard.press('Enter');
      await expect(cards(page)).toHaveCount(2);
      await expect.poll(() => stems.count()).toBeGreaterThan(short);
    },
    'Switch a card off': async () => {
      const long = await stems.count();
      await cards(page).last().getByRole('switch').click();
      await expect(stems).toHaveCount(short);
      await cards(page).last().getByRole('switch').click();
      await expect(stems).toHaveCount(long);
    },
    'Press ,': async () => {
      const long = await stems.count();
      await page.locator('h1').click();
      await page.keyboard.press(',');
      await expect(stems).toHaveCount(short);
      await page.keyboard.press('.');
      await expect(stems).toHaveCount(long);
    },
    'Press T': async () => {
      await page.keyboard.press('t');
      const lines = page.getByRole('button', { name: /^Lines/ });
      await expect(lines).toHaveText(/stroke types/);
      await page.keyboard.press('s');
      await expect(lines).toHaveText(/sung, stroke types/);
    },
  });
});

test('guide: what you can say', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await follow('what-you-can-say', {
    'Press /': async () => {
      await page.keyboard.press('6');
      await expect(page.locator('h1')).toHaveText('Log');
      await page.keyboard.press('/');
      await expect(box(page)).toBeFocused();
    },
    'Type a change': async () => {
      await page.keyboard.type('accent the rights');
      await expect(page.getByRole('option', { name: /^Accent rights/ })).toBeVisible();
    },
    'Press Enter': async () => {
      await page.keyboard.press('Enter');
      await expect(cards(page)).toHaveCount(1);
    },
    'Type half a word': async () => {
      await page.keyboard.type('gho');
      await page.keyboard.press('Tab');
      await expect(box(page)).toHaveValue(/^ghost/);
      await box(page).fill('');
    },
    'Press Ctrl Z': async () => {
      await page.keyboard.press('Control+z');
      await expect(cards(page)).toHaveCount(0);
    },
  });
});

test('guide: ask for a phrase', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  const sheet = page.locator('ls-compose-sheet');
  await follow('asking', {
    'Press Q': async () => {
      await page.locator('h1').click();
      await page.keyboard.press('q');
      await expect(sheet.locator('.slot').first()).toBeVisible();
    },
    'Press a slot': async () => {
      await sheet.locator('[data-slot="3"]').click();
      await expect(sheet.locator('.slot.hit')).toHaveCount(1);
    },
    'Say it': async () => {
      const line = sheet.getByLabel('Say what it must have');
      await line.fill('two bars of 4/4 in 16ths, hits on 1 and the a of 2, linear, playable at 110');
      await line.press('Enter');
      await expect(sheet.getByRole('article').first()).toBeVisible();
    },
    'Press ↓': async () => {
      await sheet.getByRole('region', { name: /^Answers/ }).focus();
      await page.keyboard.press('ArrowDown');
      await expect(sheet.getByRole('button', { name: 'Stop answer 1', exact: true })).toBeVisible();
      await page.keyboard.press(' ');
    },
    'Choose More with this first half': async () => {
      await sheet.getByRole('button', { name: 'Ask on from answer 1', exact: true }).click();
      await page.getByRole('menuitem', { name: 'More with this first half' }).click();
      await expect(sheet.getByRole('button', { name: /slots of an answer stay/ })).toBeVisible();
      await expect(sheet.getByRole('article').first()).toBeVisible();
    },
    Use: async () => {
      await sheet.getByRole('button', { name: 'Put answer 1 on the Bench', exact: true }).click();
      await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
    },
  });
});

test('guide: the map of your shelf', async ({ page }) => {
  await openDemo(page, '/shelf');
  const map = page.locator('ls-shelf-map');
  await follow('map', {
    'Press M': async () => {
      await page.locator('h1').click();
      await page.keyboard.press('m');
      await expect(map.locator('.square.full').first()).toBeVisible();
    },
    'Choose Columns': async () => {
      await choose(map, 'Columns', 'lead');
      await expect(map.getByRole('button', { name: /right: \d+ phrase/ }).first()).toBeVisible();
    },
    'Press a square': async () => {
      await map.locator('.square.full').first().click();
      await expect(map.locator('.phrases li').first()).toBeVisible();
    },
    'Press a dashed square': async () => {
      await map.locator('.square.leads').first().click();
      await expect(map.getByText(/This leads here|no single step/)).toBeVisible();
    },
    Hear: async () => {
      await expect(map.locator('.step').first()).toBeVisible();
      await map.locator('.step').first().getByRole('button', { name: /^Hear/ }).click();
      await map.locator('.step').first().getByRole('button', { name: /^Stop/ }).click();
      await map
        .locator('.step')
        .first()
        .getByRole('button', { name: /on the Bench$/ })
        .click();
      await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
    },
  });
});

test('guide: stickings and your kit', async ({ page }) => {
  let before = 0;
  await openDemo(page, '/bench/salt-1');
  await follow('stickings-and-kit', {
    'Open a phrase': async () => {
      await page.keyboard.press('b');
      await expect(page.locator('ls-sticking-sheet article').first()).toBeVisible();
      await expect(page.locator('ls-sticking-sheet section')).toHaveCount(5);
    },
    'Press a letter': async () => {
      await page.getByRole('button', { name: 'Stroke 1, free' }).click();
      await expect(page.getByRole('button', { name: 'Stroke 1, pinned to the right' })).toBeVisible();
      await expect(page.locator('ls-sticking-sheet article').first()).toBeVisible();
    },
    'Press Use it': async () => {
      const many = await cards(page).count();
      await page.getByRole('button', { name: 'Use it' }).first().click();
      await expect(cards(page)).toHaveCount(many + 1);
      await page.locator('h1').click();
      await page.keyboard.press('Control+z');
      await expect(cards(page)).toHaveCount(many);
      before = await ceiling(page);
    },
    'Open Kit': async () => {
      await page.keyboard.press('Escape');
      await page.keyboard.press('7');
      const piece = page.getByRole('button', { name: /^Right crash,/ });
      const at = (await piece.boundingBox())!;
      await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2);
      await page.mouse.down();
      await page.mouse.move(at.x + at.width / 2 + 60, at.y + 10, { steps: 4 });
      await page.mouse.up();
      await written(page);
      await page.goto('/bench/salt-1');
      await expect.poll(() => ceiling(page)).not.toBe(before);
      await page.goto('/kit');
      await page.getByRole('button', { name: 'Undo', exact: true }).isDisabled();
    },
    'Open My hands and feet': async () => {
      await page.getByRole('tab', { name: 'My hands and feet' }).click();
      await expect(page.getByRole('button', { name: 'Start the limb test' })).toBeVisible();
    },
  });
});

test('guide: the drill and its verdicts', async ({ page }) => {
  await openDemo(page, '/bench/salt-5');
  await follow('drill', {
    'Open a phrase in Drill': async () => {
      await page.keyboard.press('d');
      await expect(page).toHaveURL(/\/drill\//);
      const fresh = page.getByRole('button', { name: 'New ladder' });
      await expect(fresh.or(page.getByRole('button', { name: 'My ear' })).first()).toBeVisible();
      if ((await fresh.count()) > 0) await fresh.first().click();
    },
    'Press Whole phrase only': () => page.getByRole('button', { name: 'Whole phrase only' }).click(),
    'Choose who judges': async () => {
      await page.getByRole('button', { name: 'My ear' }).click();
      await page.getByLabel('Start tempo').fill('200');
      await page.getByLabel('Start tempo').press('Enter');
      await page.getByLabel('Goal tempo').fill('230');
      await page.getByLabel('Goal tempo').press('Enter');
      await page.getByLabel('Loops a rung').fill('1');
      await page.getByLabel('Loops a rung').press('Enter');
    },
    'Press Space': async () => {
      await page.locator('h1').click();
      await page.keyboard.press('Space');
      await expect(page.getByText(/rung 1 of/)).toBeVisible();
    },
    'When the loops are over': async () => {
      await expect(page.getByText('How was it?')).toBeVisible({ timeout: 30_000 });
      await page.keyboard.press('Space');
      await expect(page.getByText(/rung 2 of/)).toBeVisible({ timeout: 30_000 });
    },
    'Press Esc': async () => {
      await page.keyboard.press('Escape');
      await expect(page.locator('header')).toContainText('Stopped at');
    },
  });
});

test('guide: Today and the Log', async ({ page }) => {
  await openDemo(page);
  const rows = page.locator('ls-block-row');
  await follow('today-and-log', {
    'Open Today': async () => {
      await page.keyboard.press('1');
      await expect(rows.first()).toBeVisible();
      const minutes = page.locator('.wishes .number strong');
      const before = Number(await minutes.innerText());
      await page.keyboard.press('ArrowRight');
      await expect(minutes).toHaveText(String(before + 5));
    },
    'Say where you are': async () => {
      await page.getByRole('button', { name: 'on a pad' }).click();
      await expect(rows.first()).toBeVisible();
      await page.getByRole('button', { name: 'at the kit' }).click();
    },
    'Press Skip': async () => {
      // The plan for the place that was chosen last may still be on its way: it has come when it stays.
      let last = '';
      await expect(async () => {
        const [before, now] = [last, (await rows.allInnerTexts()).join()];
        last = now;
        expect(now).toBe(before);
      }).toPass({ intervals: [1500] });
      const second = await rows.nth(1).locator('.name').innerText();
      await rows.nth(1).getByRole('button', { name: 'Skip', exact: true }).click();
      await expect(rows.nth(1).locator('.name')).not.toHaveText(second);
      await page.locator('h1').click();
      await page.keyboard.press('Control+z');
      await expect(rows.nth(1).locator('.name')).toHaveText(second);
    },
    'Press Space': async () => {
      await page.keyboard.press('Space');
      await expect(page).toHaveURL(/\/drill\//);
      await expect(page.getByRole('button', { name: 'End block' })).toBeVisible();
    },
    'Press B': async () => {
      await page.keyboard.press('b');
      await expect(page).toHaveURL(/\/today/);
    },
    'Open the Log': async () => {
      await page.keyboard.press('6');
      await page.getByRole('button', { name: 'What did I practise?' }).click();
      await expect(page.locator('ls-chart svg')).toBeVisible();
    },
  });
});

test('guide: the shelf', async ({ page }) => {
  await openDemo(page);
  const strips = page.locator('ls-strip .title');
  await follow('shelf', {
    'Type in the box': async () => {
      const ask = page.locator('ls-ask-box input');
      await ask.fill('no toms');
      await expect(page.locator('ls-ask-box').getByRole('button', { name: /no toms/i })).toBeVisible();
      await ask.fill('');
      await page.locator('h1').click();
    },
    'Hold H': async () => {
      await page.locator('ls-strip').first().hover();
      await page.keyboard.down('h');
      await expect(page.getByRole('button', { name: 'Stop Anchor chain' })).toBeVisible();
      await page.keyboard.up('h');
    },
    'Choose two phrases': async () => {
      for (const name of ['Anchor chain', 'Cold rope'])
        await page.getByRole('checkbox', { name: `Choose ${name}` }).check();
      await page.getByRole('button', { name: 'Put on a board …' }).click();
      const dialog = page.getByRole('dialog', { name: 'Put 2 phrases on a board' });
      await dialog.getByLabel('Or a new board named').fill('First night');
      await dialog.getByRole('button', { name: 'Make the board' }).click();
    },
    'Open the board': () => expect(strips).toHaveText(['Anchor chain', 'Cold rope']),
    'Take a phrase off the shelf': async () => {
      await page.locator('ls-strip').first().getByRole('button', { name: /^More/ }).click();
      await page.getByRole('menuitem', { name: 'Take off the shelf' }).click();
      await expect(strips).toHaveText(['Cold rope']);
      await page.locator('ls-notices').getByRole('button', { name: 'Put back on the shelf' }).click();
      await expect(strips).toHaveText(['Anchor chain', 'Cold rope']);
    },
  });
});

test('guide: a night of shows', async ({ page }) => {
  await openDemo(page);
  const box = page.locator('ls-lines-box textarea');
  const spots = page.locator('ls-cue-row .spot');
  await follow('shows', {
    'Press 8': async () => {
      await page.keyboard.press('8');
      await page.getByRole('button', { name: 'More for this show' }).click();
      await page.getByRole('menuitem', { name: 'New show' }).click();
      await expect(page.getByLabel('Name of the show')).toHaveValue('New show');
    },
    'Paste your setlist': async () => {
      await box.fill('Net song, 88, 4/4, 32 bars, fill 8:3, fill 16 whole');
      await box.press('Enter');
      await expect(spots).toHaveCount(2);
    },
    'Give the date.': async () => {
      await page.getByLabel('Date').fill('2099-12-24');
      await expect(page.locator('.when')).toHaveText(/^in \d+ days$/);
    },
    'Press Fill the show': async () => {
      await page.getByRole('button', { name: 'Fill the show' }).click();
      await expect(page.locator('ls-notices')).toContainText('2 of 2 spots filled');
    },
    'Press a spot': async () => {
      await spots.nth(1).click();
      const own = page.locator('ls-spot-panel .own h3');
      const before = (await own.textContent()) ?? '';
      await page.getByRole('button', { name: 'Another one' }).click();
      await expect(own).not.toHaveText(before);
      await expect(page.getByRole('button', { name: 'Keep here' })).toHaveAttribute('aria-pressed', 'true');
    },
    'Press On paper': async () => {
      await page.getByRole('button', { name: 'On paper' }).click();
      await expect(page.locator('.sheet table tbody tr')).toHaveCount(1);
      await page.keyboard.press('Escape');
    },
    'Press Run through': async () => {
      await page.getByRole('button', { name: /^Run through/ }).click();
      await expect(page.locator('ls-run .cue')).toHaveText('Net song');
    },
  });
});

test('guide: play, calls and trading', async ({ page }) => {
  await standInPad(page);
  await openDemo(page);
  await follow('play', {
    'Press 9': async () => {
      await page.keyboard.press('9');
      await choose(page, 'What listens', 'MIDI pad or kit');
    },
    'Choose what you play over': () => choose(page, 'Over', 'nothing'),
    'Press Begin': async () => {
      await page.getByRole('button', { name: /^Begin/ }).click();
      await expect(page.getByText('Your tempo is found when you stop.')).toBeVisible();
      await play(page, sitting(40, 96, { 5: [OWN, 0], 14: [OWN, 0], 27: [OWN, 0] }));
    },
    'Press Stop': async () => {
      await page.getByRole('button', { name: /^Stop/ }).click();
      await expect(page.locator('ls-sitting .told')).toHaveText(/phrases came/);
    },
    'Press To the Bench': async () => {
      await page.getByRole('button', { name: 'To the Bench' }).first().click();
      await expect(page.getByRole('heading', { name: 'The sums' })).toBeVisible();
    },
    'Choose Calls': async () => {
      await page.goto('/play');
      await page.getByRole('button', { name: 'Calls', exact: true }).click();
      await expect(page.getByText('A phrase is called a bar ahead')).toBeVisible();
    },
    'Choose Trading': async () => {
      await page.getByRole('button', { name: 'Trading', exact: true }).click();
      await expect(page.getByText('The machine plays bars made from your shelf')).toBeVisible();
    },
  });
});

test('guide: files and devices', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await keepAs(page, 'Rope');
  let file = '';
  await follow('files-and-devices', {
    'Open Kit': async () => {
      await page.keyboard.press('7');
      await page.getByRole('tab', { name: 'My data and settings' }).click();
      const [saved] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('button', { name: 'Export the shelf' }).click(),
      ]);
      file = await saved.path();
    },
    'Press Bring in': async () => {
      await page.goto('/shelf');
      await page.getByRole('button', { name: 'Bring in', exact: true }).click();
      await page.locator('ls-bring-in input[type=file]').setInputFiles({
        name: 'shelf.json',
        mimeType: 'application/json',
        buffer: readFileSync(file),
      });
      await expect(page.getByText(/nothing/i).first()).toBeVisible();
      await page.getByRole('button', { name: 'Not now' }).click();
    },
    'Open a phrase': async () => {
      await page.goto('/shelf');
      await page.locator('ls-strip .title').first().click();
      await expect(page.locator('ls-ribbon-editor .stem').first()).toBeVisible();
      await page.locator('h1').click();
      await page.keyboard.press('Shift+A');
      await expect(page.getByRole('dialog', { name: 'Share or export' })).toBeVisible();
    },
    'Press Copy the link': async () => {
      await page.context().grantPermissions(['clipboard-write', 'clipboard-read']);
      await page.getByRole('button', { name: 'Copy the link' }).click();
      await expect(page.getByText('The link is copied')).toBeVisible();
      expect(await page.evaluate(() => navigator.clipboard.readText())).toContain('/visit');
    },
  });
});

test('guide: teaching', async ({ page }) => {
  await follow('teaching', {
    'Make the phrase': async () => {
      await typeSticking(page, 'R l l R K');
      await keepAs(page, 'Rope');
    },
    'Choose it': async () => {
      await page.goto('/shelf');
      await page.getByRole('checkbox', { name: 'Choose Rope' }).check();
      await page.getByRole('button', { name: 'Put in a lesson' }).click();
      await page.getByRole('textbox', { name: 'Name of the lesson' }).fill('Week one');
      await page.getByRole('button', { name: 'Make the lesson' }).click();
      await expect(page.locator('ls-give ol li')).toHaveCount(1);
    },
    'Write a note': async () => {
      await page.getByRole('textbox', { name: 'Note on phrase 1' }).fill('Left low.');
      await page.getByRole('textbox', { name: 'Note on phrase 1' }).press('Tab');
    },
    'Set the stages': async () => {
      await page.getByRole('checkbox', { name: 'set the stages' }).check();
      await page
        .getByRole('textbox', { name: /^Note: / })
        .first()
        .fill('Say it first.');
    },
    'Send the lesson': async () => {
      await page.getByRole('button', { name: 'Send the lesson' }).click();
      await expect(page.getByRole('textbox', { name: 'The link' })).toHaveValue(/lessons#l=/);
      await page.keyboard.press('Escape');
      await expect(page.getByRole('dialog')).toHaveCount(0);
    },
  });
});

test('guide: when something is wrong', async ({ page }) => {
  await typeSticking(page, 'R l l R K');
  await keepAs(page, 'Rope');
  await follow('when-something-is-wrong', {
    'Press Ctrl Z': async () => {
      await page.keyboard.press('/');
      await page.keyboard.type('accent 1');
      await page.keyboard.press('Enter');
      await expect(cards(page)).toHaveCount(1);
      await page.locator('h1').click();
      await page.keyboard.press('Control+z');
      await expect(cards(page)).toHaveCount(0);
      await page.keyboard.press('Control+Shift+z');
      await expect(cards(page)).toHaveCount(1);
    },
    'Look at Not kept yet': async () => {
      await typeSticking(page, 'R L K');
      await written(page);
      await page.keyboard.press('4');
      await expect(page.getByText('Not kept yet')).toBeVisible();
    },
    'Press Taken off': async () => {
      await page.locator('ls-strip').first().getByRole('button', { name: /^More/ }).click();
      await page.getByRole('menuitem', { name: 'Take off the shelf' }).click();
      await page.getByRole('button', { name: /^Taken off/ }).click();
      await page
        .getByRole('button', { name: /^Put .*back/ })
        .first()
        .click();
      await page.keyboard.press('Escape');
      await expect(page.locator('ls-strip .title').first()).toHaveText('Rope');
    },
    'Check the sound': async () => {
      await page.keyboard.press('7');
      await page.getByRole('tab', { name: 'My data and settings' }).click();
      await page.getByRole('button', { name: 'Check the sound' }).click();
      await expect(page.locator('.checks li').first()).toContainText('0 samples off', { timeout: 60_000 });
    },
    'Export the shelf': async () => {
      const [saved] = await Promise.all([
        page.waitForEvent('download'),
        page.getByRole('button', { name: 'Export the shelf' }).click(),
      ]);
      expect(readFileSync(await saved.path(), 'utf8')).toContain('Rope');
    },
  });
});

test('the guide stands beside the work: the place goes on, its page is found, Esc and ? close it', async ({ page }) => {
  await openDemo(page, '/bench/salt-1');
  await page.keyboard.press('Shift+?');
  const guide = page.getByRole('complementary', { name: 'Guide' });
  await expect(guide.getByRole('heading', { name: 'The ribbon and the recipe' })).toBeVisible();
  await expect(guide).toContainText('Play and stop');
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => v.id)).toEqual([]);
  // The book takes no key that the place has.
  await page.keyboard.press('Space');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await page.keyboard.press('Space');
  await guide.getByRole('searchbox').fill('unplugged');
  await guide.getByRole('button', { name: /Verdicts/ }).click();
  await expect(guide.getByRole('heading', { name: 'Verdicts', exact: true })).toBeInViewport();
  await expect
    .poll(() =>
      guide
        .locator('img')
        .first()
        .evaluate((i: HTMLImageElement) => i.naturalWidth),
    )
    .toBe(1280);
  // Another place: the page that is being followed stays open.
  await page.keyboard.press('4');
  await expect(page).toHaveURL(/\/shelf/);
  await expect(guide.getByRole('heading', { name: 'The drill and its verdicts' })).toBeVisible();
  await guide.getByRole('button', { name: 'All pages' }).focus();
  await page.keyboard.press('Escape');
  await expect(guide).toHaveCount(0);
  await page.keyboard.press('Shift+?');
  await expect(guide.getByRole('heading', { name: 'The shelf', exact: true })).toBeVisible();
  await page.keyboard.press('Shift+?');
  await expect(guide).toHaveCount(0);
});

test('on a phone the guide lies over the page, and a word of ours is explained until it is known', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await openDemo(page, '/drill/salt-1');
  const word = page.getByRole('button', { name: 'ready', exact: false }).first();
  await word.click();
  const meaning = page.getByRole('dialog', { name: 'Meaning of ready' });
  await expect(meaning).toContainText('4 times in 5');
  await meaning.getByRole('button', { name: 'More in the guide' }).click();
  const guide = page.getByRole('complementary', { name: 'Guide' });
  await expect(guide.getByRole('heading', { name: 'Ready and chance' })).toBeInViewport();
  expect((await guide.boundingBox())?.width).toBe(390);
  await guide.getByRole('button', { name: 'Close' }).click();
  await word.click();
  await meaning.getByRole('button', { name: 'Got it' }).click();
  await expect(page.getByText(/Ready at \d+/)).toBeVisible();
  await page.goto('/shelf');
  await expect(page.getByRole('button', { name: 'chance', exact: true })).toBeVisible();
  await expect(page.getByRole('button', { name: 'ready', exact: true })).toHaveCount(0);
});
