/** The page that asks for the access key: it needs nothing else of the server. `to` and `nonce` are of letters that need no escape. */
export function signInPage({ nonce, to, trouble }: { nonce: string; to: string; trouble: string }): string {
  return `<!doctype html>
<html lang="en">
  <head>
    <meta charset="utf-8" />
    <meta name="viewport" content="width=device-width" />
    <title>Sign in · Brelvin</title>
    <link rel="icon" href="/mark.svg" />
    <style nonce="${nonce}">
      body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: #1e1e1e; color: #eee; font: 14px/1.5 system-ui, sans-serif; }
      form { display: grid; gap: 10px; width: min(320px, 90vw); padding: 24px; background: #292929; border: 1px solid #4a4a4a; }
      h1 { margin: 0; font-size: 16px; }
      p { margin: 0; color: #bbb; }
      [role='alert'] { color: #eee; }
      input, button { font: inherit; padding: 6px 8px; border: 1px solid #4a4a4a; background: #191919; color: inherit; }
      button { background: #eee; color: #191919; cursor: pointer; }
      input:focus-visible, button:focus-visible { outline: 2px solid #eee; outline-offset: 2px; }
    </style>
  </head>
  <body>
    <form method="post" action="/sign-in">
      <h1>Brelvin</h1>
      <p>Whoever set this server up knows its access key.</p>
      <input type="password" name="key" aria-label="Access key" placeholder="access key" autocomplete="current-password" required autofocus />
      <input type="hidden" name="to" value="${to.replaceAll('&', '&amp;')}" />
      ${trouble ? `<p role="alert">${trouble}</p>` : ''}
      <button type="submit">Sign in</button>
    </form>
  </body>
</html>
`;
}
