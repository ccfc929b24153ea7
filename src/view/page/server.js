// Where results come from: the page itself, or the program that serves it.
const embedded = document.getElementById('data').textContent.trim();
export const served = embedded === '';

// The models of a page that stands by itself, each with its cases.
export function embeddedModels() {
  return JSON.parse(embedded);
}
export function casesOf(set) {
  return new Map(Object.entries(set.cases).map(([i, c]) => [Number(i), c]));
}

// The answer of the server. It is asked again a few times where it is busy: only a server that stays away has ended.
export async function ask(path, query) {
  const given = Object.entries(query).filter(([, value]) => value !== null);
  const address = `${path}?${given.map(([key, value]) => `${key}=${encodeURIComponent(value)}`).join('&')}`;
  for (let tries = 1; ; ++tries) {
    try {
      const answer = await fetch(address);
      if (!answer.ok) throw new Error(answer.statusText);
      return await answer.json();
    } catch (error) {
      if (tries === 4) throw error;
      await new Promise((resolve) => setTimeout(resolve, 250 * tries));
    }
  }
}
