"""Behind a proxy that speaks TLS (nginx, Debian's package), with the settings of docs/serving.md, a browser signs in."""

import json
import pathlib
import shutil
import subprocess
import unittest
import urllib.error
import urllib.request

from tests.browser.served import browser
from tests.serving.process import ROOT, Served, free_port, wait_for

PASSWORD = "cold-morning-on-the-dam"
NAME = "still.localhost"  # every name under localhost is this machine (RFC 6761)


def documented(port: int, tls_port: int, folder: pathlib.Path) -> str:
    """The proxy's settings as the docs give them, with this test's ports and files."""
    text = (ROOT / "docs" / "serving.md").read_text("utf-8")
    block = text.split("```nginx\n", 1)[1].split("```", 1)[0]
    block = block.replace("listen 443 ssl;", f"listen 127.0.0.1:{tls_port} ssl;").replace("still.example", NAME)
    block = block.replace("127.0.0.1:8000", f"127.0.0.1:{port}").replace("/etc/ssl/stillthread", str(folder))
    spools = "".join(
        f"{kind}_temp_path {folder}/{kind};\n" for kind in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
    )
    return f"daemon off; pid {folder}/pid; error_log {folder}/error;\nevents {{}}\nhttp {{ access_log off;\n{spools}{block}\n}}\n"


class BehindTls(unittest.TestCase):
    needs_browser = True

    def proxied(self, served: Served) -> int:
        folder, port = served.var / "proxy", free_port()
        folder.mkdir()
        subject = ["-subj", f"/CN={NAME}", "-addext", f"subjectAltName=DNS:{NAME}"]
        files = ["-keyout", str(folder / "key.pem"), "-out", str(folder / "fullchain.pem")]
        command = ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", *subject, *files]
        subprocess.run(command, check=True, capture_output=True)
        (folder / "conf").write_text(documented(served.port, port, folder), "utf-8")
        nginx = shutil.which("nginx") or "/usr/sbin/nginx"
        log = folder / "said"
        with log.open("wb") as said:
            process = subprocess.Popen([nginx, "-c", str(folder / "conf"), "-p", str(folder)], stdout=said, stderr=said)
        self.addCleanup(process.wait)
        self.addCleanup(process.terminate)
        wait_for(port, process, log)
        return port

    def test_a_browser_signs_up_and_in_and_the_cookie_is_for_tls_alone(self):
        served = Served(STILL_HOSTS=NAME, STILL_HTTPS="1", STILL_PROXY="127.0.0.1")
        self.addCleanup(served.close)
        served.migrate()
        served.start()
        port = self.proxied(served)
        context = browser().new_context(ignore_https_errors=True)
        self.addCleanup(context.close)
        page = context.new_page()
        answer = page.goto(f"https://{NAME}:{port}/")
        self.assertIn("max-age", answer.headers["strict-transport-security"])
        page.get_by_role("button", name="I have no account yet").click()
        page.get_by_label("Name").fill("angler")
        page.get_by_label("Password").fill(PASSWORD)
        with page.expect_response("**/api/session/sign-up") as told:
            page.get_by_role("button", name="Make an account").first.click()
        self.assertEqual(told.value.status, 200)
        cookies = {one["name"]: one for one in context.cookies()}
        self.assertTrue(cookies["sessionid"]["secure"])
        self.assertTrue(cookies["csrftoken"]["secure"])
        self.assertEqual(json.loads(served.get("/api/health")), {"ok": True})
        asked = urllib.request.Request(f"http://127.0.0.1:{served.port}/", method="GET")
        opener = urllib.request.build_opener(NoRedirect)
        with self.assertRaises(urllib.error.HTTPError) as told:
            opener.open(asked, timeout=60)
        self.assertEqual(told.exception.code, 301)


class NoRedirect(urllib.request.HTTPRedirectHandler):
    """A redirect is an answer like another."""

    def redirect_request(self, *args, **kwargs):
        return None
