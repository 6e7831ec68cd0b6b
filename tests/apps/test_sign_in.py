"""Nobody let in: locks by account and address, the pace of an address, a second factor, what is sent on from where."""

import io
import time
from ipaddress import ip_network
from unittest import mock

from axes.models import AccessAttempt, AccessFailureLog
from django.contrib.auth.models import User
from django.core.management import CommandError, call_command
from django.test import Client, RequestFactory, SimpleTestCase, override_settings
from django.utils import timezone
from django_otp.oath import TOTP
from django_otp.plugins.otp_static.models import StaticToken
from django_otp.plugins.otp_totp.models import TOTPDevice

from finegap.api.address import client_address
from finegap.people import sign_in
from finegap.people.models import PersonEvent
from finegap.site.middleware import TrustedHops
from tests.apps.base import Works

HERE, THERE = "192.168.1.31", "192.168.1.32"
RIGHT = "lathe-and-lamp"


class Addresses(SimpleTestCase):
    """X-Forwarded-For: what anybody wrote before the last trusted hop does not count (RFC 7239, 8.1, says why)."""

    def address(self, remote, forwarded=None):
        more = {} if forwarded is None else {"HTTP_X_FORWARDED_FOR": forwarded}
        return client_address(RequestFactory().get("/", REMOTE_ADDR=remote, **more))

    @override_settings(TRUSTED_PROXIES=[ip_network("127.0.0.1"), ip_network("10.1.0.0/16")])
    def test_only_what_a_trusted_proxy_added_counts(self):
        for remote, forwarded, expected in (
            (HERE, None, HERE),
            (HERE, THERE, HERE),
            ("127.0.0.1", THERE, THERE),
            ("127.0.0.1", f"8.8.8.8, {THERE}", THERE),
            ("127.0.0.1", f"8.8.8.8, {THERE}, 10.1.2.3", THERE),
            ("127.0.0.1", f"10.1.2.3, {THERE}", THERE),
            ("127.0.0.1", "nonsense", "127.0.0.1"),
            ("127.0.0.1", "10.1.0.1, " * 500 + "10.1.0.1", "10.1.0.1"),
            ("::ffff:127.0.0.1", THERE, THERE),
            ("", None, "0.0.0.0"),
        ):
            with self.subTest(remote=remote, forwarded=forwarded and forwarded[:40]):
                self.assertEqual(self.address(remote, forwarded), expected)

    @override_settings(TRUSTED_PROXIES=[ip_network("127.0.0.1")])
    def test_what_a_stranger_says_of_the_way_is_dropped(self):
        said = {"HTTP_X_FORWARDED_PROTO": "https", "HTTP_X_FORWARDED_FOR": "1.2.3.4", "HTTP_FORWARDED": "for=1.2.3.4"}
        for remote, left in ((HERE, 0), ("127.0.0.1", 3)):
            request = RequestFactory().get("/", REMOTE_ADDR=remote, **said)
            TrustedHops(lambda _: None)(request)
            self.assertEqual(sum(name in request.META for name in said), left)


class AtTheDoor(Works):
    def setUp(self):
        super().setUp()
        for one in (self.tom, self.lena):
            one.set_password(RIGHT)
            one.save()

    def sign_in(self, username, password, address=HERE, client=None, **more):
        sent = {"username": username, "password": password, **more}
        return (client or Client()).post("/sign-in", sent, REMOTE_ADDR=address)


class Signing(AtTheDoor):
    def test_wrong_tries_lock_the_account_there_and_nothing_else_and_a_lead_unlocks_it(self):
        answers = [self.sign_in("tom", f"guess-{i}") for i in range(6)]
        self.assertEqual([one.status_code for one in answers], [200] * 4 + [429] * 2)
        self.assertContains(answers[-1], "it is locked here for 15 minutes", status_code=429)
        with mock.patch("django.contrib.auth.models.User.check_password") as tried:
            self.assertEqual(self.sign_in("tom", RIGHT).status_code, 429)
        tried.assert_not_called()
        self.assertEqual(self.sign_in("lena", RIGHT).status_code, 302)
        self.assertEqual(self.sign_in("tom", RIGHT, THERE).status_code, 302)
        self.assertEqual(self.sign_in("tom", RIGHT).status_code, 429)  # what went well elsewhere unlocks nothing here
        self.client.force_login(self.lena)
        people = self.client.get("/api/people").json()
        self.assertEqual({one["username"]: one["locked"] for one in people["people"]}, {"tom": [HERE], "lena": []})
        self.assertEqual((people["log"][0]["person"], people["log"][0]["what"]), ("Tom", f"locked at {HERE}"))
        self.client.force_login(self.tom)
        self.assertEqual(self.client.post("/api/people/tom/unlock").status_code, 403)
        self.client.force_login(self.lena)
        self.assertEqual(self.client.post("/api/people/nobody/unlock").json()["field"], "person")
        told = self.client.post("/api/people/tom/unlock").json()
        self.assertEqual([one["locked"] for one in told["people"]], [[], []])
        self.assertEqual((told["log"][0]["by"], told["log"][0]["what"]), ("Lena", "unlocked"))
        self.assertEqual(self.sign_in("tom", RIGHT).status_code, 302)

    def test_a_lock_ends_by_itself_and_no_password_is_kept(self):
        for i in range(5):
            self.sign_in("tom", f"guess-{i}")
        kept = AccessAttempt.objects.get()
        self.assertNotIn("guess", f"{kept.post_data} {kept.get_data}")
        AccessAttempt.objects.update(attempt_time=kept.attempt_time - sign_in.settings.AXES_COOLOFF_TIME)
        self.assertEqual(self.sign_in("tom", RIGHT).status_code, 302)

    def test_an_address_that_tries_many_accounts_waits_and_others_do_not(self):
        with mock.patch.object(sign_in, "PACE", 6):
            answers = [self.sign_in(f"nobody{i}", "x").status_code for i in range(8)]
            self.assertEqual(answers, [200] * 6 + [429] * 2)
            self.assertEqual(self.sign_in("tom", RIGHT).status_code, 429)
            self.assertEqual(self.sign_in("tom", RIGHT, THERE).status_code, 302)
        self.assertFalse(PersonEvent.objects.exists())
        AccessFailureLog.objects.update(attempt_time=timezone.now() - sign_in._MINUTE)
        with mock.patch.object(sign_in, "PACE", 6):
            self.assertEqual(self.sign_in("tom", RIGHT).status_code, 302)  # a minute later

    def test_passwords_are_tried_one_at_a_time_and_the_rest_is_told_to_wait(self):
        with sign_in.one_at_a_time(), mock.patch.object(sign_in, "_WAIT_S", 0.05):
            answer = self.sign_in("tom", RIGHT)
        self.assertContains(answer, "Many sign in at this moment", status_code=429)
        self.assertEqual(self.sign_in("tom", RIGHT).status_code, 302)

    def test_it_goes_on_where_one_was_and_nowhere_else(self):
        page = Client().get("/fleet/H-1?unit=in")
        self.assertRedirects(page, "/sign-in?next=/fleet/H-1%3Funit%3Din", fetch_redirect_response=False)
        self.assertContains(Client().get(page.url), 'name="next" value="/fleet/H-1?unit=in"')
        self.assertEqual(self.sign_in("tom", RIGHT, next="/fleet/H-1?unit=in").url, "/fleet/H-1?unit=in")
        self.assertEqual(self.sign_in("tom", RIGHT, next="//evil.example/").url, "/")


class SecondFactor(AtTheDoor):
    """TOTP by RFC 6238; codes are made here by the package's own oath module, which is held against the RFC's table below."""

    def code(self, person):
        device = TOTPDevice.objects.get(user=person)
        return f"{TOTP(device.bin_key, device.step).token():06d}"

    def again(self, person):
        """The same time step counts once: what was used is forgotten, as thirty seconds would."""
        TOTPDevice.objects.filter(user=person).update(last_t=-1)

    def set_up(self):
        self.client.force_login(self.lena)
        begun = self.client.post("/api/people/second", {"password": RIGHT}, "application/json")
        self.assertEqual(begun.status_code, 200, begun.content)
        told = self.client.post("/api/people/second/code", {"code": self.code(self.lena)}, "application/json")
        self.again(self.lena)
        return begun.json(), told.json()["codes"]

    def test_codes_are_those_of_the_standard(self):
        # RFC 6238, appendix B, SHA-1, eight digits.
        for moment, expected in ((59, 94287082), (1111111109, 7081804), (1234567890, 89005924), (20000000000, 65353130)):
            totp = TOTP(b"12345678901234567890", digits=8)
            totp.time = moment
            self.assertEqual(totp.token(), expected)

    def test_nobody_is_half_signed_in(self):
        begun, paper = self.set_up()
        self.assertIn("<svg", begun["picture"])
        self.assertRegex(begun["key"], r"^[A-Z2-7]{32}$")
        self.assertEqual((len(paper), len(set(paper))), (10, 10))
        client = Client()
        answer = self.sign_in("lena", RIGHT, client=client, next="/sheets")
        self.assertEqual(answer.url, "/sign-in/code")
        self.assertEqual(client.get("/api/me").status_code, 401)
        self.assertContains(client.get("/sign-in/code"), "Six digits")
        wrong = client.post("/sign-in/code", {"code": "000000"})
        self.assertContains(wrong, "That code does not count")
        self.assertEqual(client.get("/api/me").status_code, 401)
        code = self.code(self.lena)
        self.assertEqual(client.post("/sign-in/code", {"code": code}).url, "/sheets")
        self.assertEqual(client.get("/api/me").json()["username"], "lena")
        for replayed in (code, ""):
            other = Client()
            self.sign_in("lena", RIGHT, client=other)
            self.assertEqual(other.post("/sign-in/code", {"code": replayed}).status_code, 200)
            self.assertEqual(other.get("/api/me").status_code, 401)
        self.again(self.lena)

    def test_a_code_on_paper_counts_once(self):
        _, paper = self.set_up()
        for expected in (302, 200):
            client = Client()
            self.sign_in("lena", RIGHT, client=client)
            self.assertEqual(client.post("/sign-in/code", {"code": f" {paper[0].upper()} "}).status_code, expected)
        self.assertEqual(StaticToken.objects.count(), 9)

    def test_the_first_half_does_not_last_and_ends_with_the_password(self):
        self.set_up()
        late, changed = Client(), Client()
        self.sign_in("lena", RIGHT, client=late)
        with mock.patch.object(time, "time", return_value=time.time() + 301):
            self.assertRedirects(late.get("/sign-in/code"), "/sign-in", fetch_redirect_response=False)
        self.sign_in("lena", RIGHT, client=changed)
        person = User.objects.get(username="lena")
        person.set_password("another-one-now")
        person.save()
        self.assertRedirects(changed.get("/sign-in/code"), "/sign-in", fetch_redirect_response=False)
        self.assertRedirects(Client().get("/sign-in/code"), "/sign-in", fetch_redirect_response=False)

    def test_wrong_codes_lock_as_wrong_passwords_do(self):
        self.set_up()
        client = Client()
        self.sign_in("lena", RIGHT, client=client)
        answers = [client.post("/sign-in/code", {"code": "000000"}, REMOTE_ADDR=HERE).status_code for _ in range(6)]
        self.assertEqual(answers, [200] * 4 + [429] * 2)
        self.again(self.lena)
        self.assertEqual(client.post("/sign-in/code", {"code": self.code(self.lena)}, REMOTE_ADDR=HERE).status_code, 429)

    def test_at_a_browser_in_use_the_code_is_asked_for_too(self):
        self.set_up()
        self.client.force_login(self.tom)
        told = self.client.get("/api/people/switch").json()
        self.assertEqual([one["by"] for one in told], ["password and code"])
        sent = {"username": "lena", "secret": RIGHT}
        self.assertEqual(self.client.post("/api/people/switch", sent, "application/json").json()["field"], "code")
        self.assertEqual(self.client.get("/api/me").json()["username"], "tom")
        self.again(self.lena)
        sent["code"] = self.code(self.lena)
        self.assertEqual(self.client.post("/api/people/switch", sent, "application/json").status_code, 200)

    def test_it_is_taken_off_with_password_and_code_or_by_another_lead(self):
        self.set_up()
        off = {"password": RIGHT, "code": "000000"}
        self.assertEqual(self.client.post("/api/people/second/off", off, "application/json").json()["field"], "password or code")
        self.assertEqual(self.client.post("/api/people/lena/second/clear").json()["field"], "person")  # not by oneself alone
        self.again(self.lena)
        off["code"] = self.code(self.lena)
        told = self.client.post("/api/people/second/off", off, "application/json").json()
        self.assertFalse(told["me"]["second_factor"])
        self.assertEqual(self.sign_in("lena", RIGHT).url, "/")
        self.set_up()
        self.tom.groups.set(self.lena.groups.all())
        self.client.force_login(self.tom)
        self.assertEqual(self.client.post("/api/people/lena/second/clear").status_code, 200)
        self.assertEqual(self.sign_in("lena", RIGHT).url, "/")
        said = list(PersonEvent.objects.values_list("by__username", "what"))
        self.assertEqual(said[0], ("tom", "second factor taken off"))

    def test_a_code_cannot_be_guessed_with_the_password_in_hand(self):
        self.set_up()
        off = {"password": RIGHT, "code": "000000"}
        answers = [self.client.post("/api/people/second/off", off, "application/json").status_code for _ in range(7)]
        self.assertEqual(answers, [422] * 5 + [409] * 2)

    def test_it_is_taken_off_at_the_server_where_nobody_else_can(self):
        self.set_up()
        with self.assertRaisesRegex(CommandError, "tom has no second factor"):
            call_command("second_factor_off", "tom")
        call_command("second_factor_off", "lena", stdout=io.StringIO())
        self.assertEqual(self.sign_in("lena", RIGHT).url, "/")
        self.assertEqual(PersonEvent.objects.first().what, "second factor taken off at the server")

    def test_it_is_for_leads_and_begun_with_the_password(self):
        self.client.force_login(self.tom)
        self.assertEqual(self.client.post("/api/people/second", {"password": RIGHT}, "application/json").status_code, 403)
        self.client.force_login(self.lena)
        self.assertEqual(self.client.post("/api/people/second", {"password": "x"}, "application/json").json()["field"], "password")
        self.assertEqual(self.client.post("/api/people/second/code", {"code": "1"}, "application/json").status_code, 409)
        self.client.post("/api/people/second", {"password": RIGHT}, "application/json")
        self.assertEqual(self.sign_in("lena", RIGHT).url, "/")  # begun, and no code was right yet
        self.assertEqual(self.client.post("/api/people/second/code", {"code": "1"}, "application/json").json()["field"], "code")
