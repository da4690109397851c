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
      body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: #23211f; color: #e9e4da; font: 15px/1.5 system-ui, sans-serif; }
      form { display: grid; gap: 12px; width: min(320px, 90vw); }
      h1 { margin: 0; font-size: 20px; font-weight: 600; }
      input, button { font: inherit; padding: 8px 10px; border-radius: 6px; border: 1px solid #57524c; background: #2e2b28; color: inherit; }
      button { background: #e0b15a; color: #23211f; border-color: transparent; font-weight: 600; cursor: pointer; }
      input:focus-visible, button:focus-visible { outline: 2px solid #e0b15a; outline-offset: 2px; }
      p { margin: 0; }
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
