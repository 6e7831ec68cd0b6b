"""Certificates of the works' own, held against OpenSSL as a tablet's browser holds them."""

import datetime as dt
import socket
import ssl
import tempfile
import threading
from pathlib import Path
from unittest import mock

from cryptography import x509
from cryptography.hazmat.primitives import serialization
from django.test import TestCase, override_settings

from finegap.site import tls
from finegap.site.tls import AUTHORITY, AUTHORITY_KEY, HERE, SERVER, SERVER_KEY, TlsFault, make, read


class Tls(TestCase):
    def setUp(self):
        folder = tempfile.TemporaryDirectory()
        self.addCleanup(folder.cleanup)
        self.folder = Path(folder.name) / "tls"

    def shakes_hands(self, host, trusting=None):
        """Whether a client that trusts the authority takes the server for this host."""
        server = ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER)
        server.load_cert_chain(self.folder / SERVER, self.folder / SERVER_KEY)
        client = ssl.create_default_context(cafile=trusting or self.folder / AUTHORITY)
        client.verify_flags |= ssl.VERIFY_X509_STRICT
        ours, theirs = socket.socketpair()

        def answer():
            try:
                server.wrap_socket(theirs, server_side=True).close()
            except (ssl.SSLError, OSError):
                theirs.close()

        serving = threading.Thread(target=answer)
        serving.start()
        try:
            client.wrap_socket(ours, server_hostname=host).close()
        except ssl.SSLCertVerificationError:
            return False
        finally:
            ours.close()
            serving.join(10)
        return True

    def test_a_client_that_trusts_the_authority_takes_it_for_its_hosts_and_no_other(self):
        made = make(self.folder, ["pumps.local", "192.168.1.20"])
        self.assertEqual(set(made.hosts), {"pumps.local", "192.168.1.20", *HERE})
        for host in made.hosts:
            self.assertTrue(self.shakes_hands(host), host)
        for host in ("other.local", "192.168.1.21"):
            self.assertFalse(self.shakes_hands(host), host)
        modes = {name: (self.folder / name).stat().st_mode & 0o077 for name in (AUTHORITY_KEY, SERVER_KEY)}
        self.assertEqual(modes, {AUTHORITY_KEY: 0, SERVER_KEY: 0})

    def test_made_again_it_is_renewed_and_tablets_go_on(self):
        first = make(self.folder, ["pumps.local"])
        kept = Path(self.folder.parent / "trusted.crt")
        kept.write_bytes((self.folder / AUTHORITY).read_bytes())
        with mock.patch.object(tls, "_EARLIER", dt.timedelta(hours=-1)):
            second = make(self.folder, [])
        self.assertEqual((second.hosts, second.authority), (first.hosts, first.authority))
        self.assertGreater(second.ends, first.ends)
        make(self.folder, ["192.168.1.20"])
        self.assertTrue(self.shakes_hands("192.168.1.20", trusting=kept))

    def test_the_authority_vouches_for_nothing_beyond_the_workshop_whoever_has_its_key(self):
        make(self.folder, ["pumps.local"])
        with self.assertRaisesRegex(TlsFault, "cannot vouch for bank.example"):
            make(self.folder, ["bank.example"])
        for stranger in ("bank.example", "8.8.8.8"):
            with mock.patch.object(tls, "_may_vouch", return_value=True):
                make(self.folder, [stranger])  # as a thief of the key would
            self.assertFalse(self.shakes_hands(stranger), stranger)

    def test_one_made_with_a_domain_of_the_works_vouches_for_it(self):
        make(self.folder, ["pumps.wold.example", "203.0.113.7"])
        self.assertTrue(self.shakes_hands("pumps.wold.example") and self.shakes_hands("203.0.113.7"))

    def test_no_browser_refuses_it_for_its_length(self):
        make(self.folder, ["pumps.local"])
        server = x509.load_pem_x509_certificate((self.folder / SERVER).read_bytes())
        self.assertLessEqual(server.not_valid_after_utc - server.not_valid_before_utc, dt.timedelta(days=398))

    def test_what_is_no_host_is_refused_and_nothing_is_made(self):
        for host in ("", "a b", "http://pumps", "300.1.1.1", "-pumps", "pumps..local", "*"):
            with self.subTest(host), self.assertRaises(TlsFault):
                make(self.folder, [host])
        self.assertIsNone(read(self.folder))

    def test_a_damaged_one_is_said_with_what_to_do(self):
        make(self.folder, ["pumps.local"])
        (self.folder / "server.crt").write_text("no certificate")
        for act in (lambda: read(self.folder), lambda: make(self.folder, [])):
            with self.assertRaisesRegex(TlsFault, "is no certificate. Delete it"):
                act()

    def test_tablets_fetch_the_authority_and_never_its_key(self):
        make(self.folder, ["pumps.local"])
        with override_settings(VAR=self.folder.parent):
            answer = self.client.get("/authority.crt")
            self.assertEqual(answer["Content-Type"], "application/x-x509-ca-cert")
            got = x509.load_pem_x509_certificate(answer.content)
            self.assertNotIn(b"PRIVATE", answer.content)
            self.assertEqual(got, x509.load_pem_x509_certificate((self.folder / AUTHORITY).read_bytes()))
        with override_settings(VAR=self.folder):
            self.assertEqual(self.client.get("/authority.crt").status_code, 404)
        key = serialization.load_pem_private_key((self.folder / AUTHORITY_KEY).read_bytes(), None)
        self.assertEqual(key.public_key(), got.public_key())
