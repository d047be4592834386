"""Coming in and going out; people, the browsers they are signed in from, trusted tablets."""

from fastapi import APIRouter, Request, Response

from zymon.work.house import people as work
from zymon.work.house import schemas as s
from zymon.work.schemas import ByIn

from ..context import Context, Ctx, Id
from ..door import COOKIE, TABLET_COOKIE
from ..rights import SignedIn, Somebody

router = APIRouter(prefix="/api", tags=["house"])
TABLET_S = 400 * 86_400  # as long as browsers keep anything


def _give(ctx: Context, answer: Response, name: str, token: str, lasts_s: int) -> None:
    """A cookie that no script reads, that no other page sends, and over https only where we are reached by it."""
    answer.set_cookie(
        name, token, max_age=lasts_s, httponly=True, samesite="strict", secure=ctx.address.startswith("https"), path="/"
    )


@router.get("/door")
def door(ctx: Ctx, request: Request, visitor: Somebody) -> s.DoorOut:
    """Whether one signs in here, and who is."""
    return work.door(ctx, visitor, request.cookies.get(TABLET_COOKIE))


@router.post("/sign-in")
def sign_in(ctx: Ctx, request: Request, answer: Response, body: s.SignInIn) -> s.DoorOut:
    """Sign in with a passphrase, or on a trusted tablet with a PIN."""
    tablet = request.cookies.get(TABLET_COOKIE)
    token, lasts_s = work.sign_in(ctx, body, tablet, request.headers.get("user-agent", ""))
    _give(ctx, answer, COOKIE, token, lasts_s)
    return work.door(ctx, ctx.door.visitor(token, ctx.now_s), tablet)


@router.post("/sign-out", status_code=204)
def sign_out(ctx: Ctx, answer: Response, visitor: Somebody) -> None:
    """Sign this browser out."""
    if visitor is not None:
        work.sign_out(ctx, visitor)
        ctx.door.forget()
    answer.delete_cookie(COOKIE, path="/", httponly=True, samesite="strict")


@router.post("/me/confirm", status_code=204)
def confirm(ctx: Ctx, visitor: SignedIn, body: s.ConfirmIn) -> None:
    """Give the passphrase or PIN once more, for a signature."""
    work.confirm(ctx, visitor, body.secret)
    ctx.door.forget()


@router.put("/me/secret", status_code=204)
def own_secret(ctx: Ctx, visitor: SignedIn, body: s.OwnSecretIn) -> None:
    """Another passphrase or PIN for oneself."""
    work.own_secret(ctx, visitor, body)
    ctx.door.forget()


@router.put("/me/shows", status_code=204)
def show_so(ctx: Ctx, visitor: SignedIn, body: s.ShowsIn) -> None:
    """Another language, or other units, for oneself."""
    work.show_so(ctx, visitor, body.shows)
    ctx.door.forget()


@router.post("/me/calendar", status_code=201)
def calendar(ctx: Ctx, visitor: Somebody) -> s.CalendarOut:
    """The address by which a calendar follows the round."""
    key = "" if visitor is None else f"?key={work.calendar_token(ctx, visitor)}"
    return s.CalendarOut(address=f"{ctx.address}/api/today.ics{key}")


@router.get("/people")
def people(ctx: Ctx) -> list[s.PersonOut]:
    """Everybody, also who left."""
    return work.people(ctx)


@router.post("/people", status_code=201)
def add(ctx: Ctx, request: Request, answer: Response, visitor: Somebody, body: s.PersonIn) -> s.PersonOut:
    """Put somebody on record. With the first, who is an owner, signing in begins; they are signed in at once."""
    made = work.add(ctx, body)
    ctx.door.forget()
    if visitor is None:
        token, lasts_s = work.sign_in(
            ctx, s.SignInIn(name=body.name, passphrase=body.passphrase), None, request.headers.get("user-agent", "")
        )
        _give(ctx, answer, COOKIE, token, lasts_s)
    return made


@router.put("/people/{person_id}/role")
def give_role(ctx: Ctx, person_id: Id, body: s.RoleIn) -> s.PersonOut:
    """Give somebody another role."""
    changed = work.give_role(ctx, person_id, body)
    ctx.door.forget()
    return changed


@router.put("/people/{person_id}/passphrase")
def give_passphrase(ctx: Ctx, person_id: Id, body: s.PassphraseIn) -> s.PersonOut:
    """Give somebody another passphrase."""
    changed = work.give_passphrase(ctx, person_id, body)
    ctx.door.forget()
    return changed


@router.post("/people/{person_id}/end")
def end(ctx: Ctx, person_id: Id, body: ByIn) -> s.PersonOut:
    """Somebody works here no more."""
    gone = work.end(ctx, person_id, body.by)
    ctx.door.forget()
    return gone


@router.get("/sign-ins")
def signed_in(ctx: Ctx, visitor: SignedIn) -> list[s.SignedInOut]:
    """Where one is signed in; an owner sees everybody's."""
    return work.signed_in(ctx, visitor)


@router.post("/sign-ins/{sign_in_id}/end", status_code=204)
def end_signed_in(ctx: Ctx, visitor: SignedIn, sign_in_id: Id) -> None:
    """Sign a browser or calendar out from afar."""
    work.end_signed_in(ctx, visitor, sign_in_id)
    ctx.door.forget()


@router.get("/tablets")
def tablets(ctx: Ctx) -> list[s.TabletOut]:
    """The tablets that are trusted."""
    return work.tablets(ctx)


@router.post("/tablets", status_code=204)
def trust_tablet(ctx: Ctx, answer: Response, _visitor: SignedIn, body: s.TabletIn) -> None:
    """Trust the tablet in hand: on it a PIN will do."""
    _give(ctx, answer, TABLET_COOKIE, work.trust_tablet(ctx, body), TABLET_S)


@router.post("/tablets/{tablet_id}/end", status_code=204)
def end_tablet(ctx: Ctx, tablet_id: Id, body: ByIn) -> None:
    """Trust a tablet no more."""
    work.end_tablet(ctx, tablet_id, body.by)
    ctx.door.forget()
