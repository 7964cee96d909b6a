/**
 * The script of a page that takes notes by a link: it makes a photo small, and sends both once, however often it is
 * tapped and whatever comes back.
 */
export const LEAVE = `
const form = document.getElementById('leave');
const note = document.getElementById('note');
const photo = document.getElementById('photo');
const wrong = document.getElementById('wrong');
const left = document.getElementById('left');
const button = form.querySelector('button');
let id = newId();

function newId() {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  bytes[6] = (bytes[6] & 15) | 64;
  bytes[8] = (bytes[8] & 63) | 128;
  const hex = [...bytes].map((one) => one.toString(16).padStart(2, '0')).join('');
  return [8, 12, 16, 20, 32].map((end, i, ends) => hex.slice(ends[i - 1] || 0, end)).join('-');
}

async function small(file) {
  const picture = await createImageBitmap(file);
  const scale = Math.min(1, 1600 / Math.max(picture.width, picture.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(picture.width * scale));
  canvas.height = Math.max(1, Math.round(picture.height * scale));
  canvas.getContext('2d').drawImage(picture, 0, 0, canvas.width, canvas.height);
  return canvas.toDataURL('image/jpeg', 0.82).split(',')[1];
}

form.addEventListener('submit', async (event) => {
  event.preventDefault();
  wrong.textContent = '';
  left.textContent = '';
  const body = { id, note: note.value };
  const [file] = photo.files;
  if (!body.note.trim() && !file) {
    wrong.textContent = 'Write a note, or choose a photo.';
    note.focus();
    return;
  }
  button.disabled = true;
  try {
    if (file) {
      const made = await small(file).catch(() => undefined);
      if (!made) {
        wrong.textContent = 'This file is no picture that can be read here.';
        return;
      }
      body.photo = made;
    }
    const answer = await fetch(location.pathname, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
    const said = await answer.json().catch(() => undefined);
    if (answer.ok && said && said.waits === true) {
      id = newId();
      form.reset();
      left.textContent = 'It is left here, and waits until somebody of the house says yes to it.';
      return;
    }
    const first = said && said.errors && said.errors[0];
    wrong.textContent = first ? first.message : said && said.title
      ? said.title + ' ' + (said.detail || '')
      : 'That was no answer of this house. Nothing was stored; try again.';
  } catch {
    wrong.textContent = 'The house cannot be reached. Nothing was stored; try again.';
  } finally {
    button.disabled = false;
  }
});
`;
