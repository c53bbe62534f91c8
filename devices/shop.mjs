// What the stand-ins share: a sign-in at Blue Dawn, and sending to it. The password is asked from BLUE_DAWN_PASSWORD, the
// demo shop's by default.

/** Signs in; answers with what sends a body to a path and throws what was refused. */
export async function signIn(url, userName) {
  const cookies = new Map();
  let token;
  async function call(path, method, body) {
    const response = await fetch(url + path, {
      method,
      headers: {
        cookie: [...cookies].map(([name, value]) => `${name}=${value}`).join('; '),
        ...(body ? { 'content-type': 'application/json' } : {}),
        ...(token ? { 'X-Blue-Dawn-Token': token } : {}),
      },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    for (const line of response.headers.getSetCookie()) {
      const [name, ...value] = line.split(';')[0].split('=');
      cookies.set(name, value.join('='));
    }
    const answer = await response.json();
    if (!response.ok) throw new Error(`${answer.title ?? response.status} ${answer.detail ?? ''}`);
    return answer;
  }
  ({ token } = await call('/api/session', 'GET'));
  const password = process.env.BLUE_DAWN_PASSWORD ?? 'sandrigg-quay';
  ({ token } = await call('/api/session', 'POST', { userName, password }));
  return (path, body) => call(path, 'POST', body);
}
