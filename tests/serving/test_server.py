"""Requests that come in pieces or not at all hold nobody up, and only a proxy named by its address is believed."""

import contextlib
import json
import socket
import threading
import unittest
import urllib.error
import urllib.request
from unittest import mock

from stillthread.site import serve
from tests.serving.process import free_port

HALF = b"POST /api/session/sign-in HTTP/1.1\r\nHost: localhost\r\nContent-Type: application/json\r\nContent-Length: 900\r\n\r\n{"


def who_asks(environ, start):
    """A plain application that tells what it was told."""
    told = {"address": environ["REMOTE_ADDR"], "scheme": environ["wsgi.url_scheme"], "host": environ["HTTP_HOST"]}
    environ["wsgi.input"].read()
    start("200 OK", [("Content-Type", "application/json")])
    return [json.dumps(told).encode()]


@contextlib.contextmanager
def running(proxy=""):
    port = free_port()
    server = serve.make_server(who_asks, "127.0.0.1", port, proxy)
    done = threading.Event()

    def serving():
        while not done.is_set():
            server.asyncore.loop(timeout=0.05, map=server._map, count=1)

    thread = threading.Thread(target=serving, daemon=True)
    thread.start()
    try:
        yield port
    finally:
        done.set()
        thread.join(10)
        server.task_dispatcher.shutdown()
        server.asyncore.close_all(server._map)


def ask(port, **headers):
    asked = urllib.request.Request(f"http://127.0.0.1:{port}/api/health", headers=headers)
    with urllib.request.urlopen(asked, timeout=60) as answer:
        return json.load(answer)


def half_sent(port, what=HALF):
    one = socket.create_connection(("127.0.0.1", port), 5)
    one.sendall(what)
    return one


class SlowSenders(unittest.TestCase):
    def test_fifty_half_sent_requests_hold_nobody_up(self):
        with running() as port, contextlib.ExitStack() as stack:
            for n in range(50):
                stack.enter_context(half_sent(port, HALF if n % 2 else HALF[:40]))
            self.assertEqual(ask(port)["address"], "127.0.0.1")

    def test_who_does_not_send_it_all_is_cut_off(self):
        for what in (HALF, HALF[:40]):
            with (
                mock.patch.object(serve, "SENT_WITHIN_S", 0.3),
                mock.patch.object(serve, "TIDIED_EVERY_S", 0),
                running() as port,
                half_sent(port, what) as slow,
            ):
                slow.settimeout(20)
                self.assertEqual(slow.recv(1), b"")

    def test_a_body_too_large_is_refused_before_it_is_sent(self):
        with running() as port, half_sent(port, HALF.replace(b"900", b"90000000")) as big:
            big.settimeout(20)
            self.assertIn(b" 413 ", big.recv(40))

    def test_headers_without_end_are_refused(self):
        with running() as port, half_sent(port, b"GET / HTTP/1.1\r\n" + b"X-Long: " + b"x" * 32_000) as long:
            long.settimeout(20)
            self.assertIn(b" 431 ", long.recv(40))


class Proxies(unittest.TestCase):
    SAID = {"X-Forwarded-For": "203.0.113.9", "X-Forwarded-Proto": "https", "X-Forwarded-Host": "still.example"}

    def test_the_named_proxy_is_believed(self):
        with running("127.0.0.1") as port:
            told = ask(port, **self.SAID)
        self.assertEqual(told, {"address": "203.0.113.9", "scheme": "https", "host": "still.example"})

    def test_nobody_else_is(self):
        for proxy in ("", "192.0.2.1"):
            with running(proxy) as port:
                told = ask(port, **self.SAID)
            self.assertEqual((told["address"], told["scheme"]), ("127.0.0.1", "http"))
            self.assertNotEqual(told["host"], "still.example")
