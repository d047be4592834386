"""How files of a head are read: what was answered about the first one, kept for the next."""

import json

from sqlalchemy import String, Text, select
from sqlalchemy.orm import Mapped, Session, mapped_column

from .models import Base


class FileHead(Base):
    """What somebody said of files that begin with a head: the answers by what was asked, JSON."""

    __tablename__ = "file_head"
    id: Mapped[int] = mapped_column(primary_key=True)
    head: Mapped[str] = mapped_column(String(4000), unique=True)
    answers: Mapped[str] = mapped_column(Text)
    by: Mapped[str] = mapped_column(String(60))
    at_s: Mapped[int]


def remembered(session: Session, head: str) -> tuple[dict[str, str], FileHead | None]:
    """What was answered of files with a head, and who said so; nothing where none came before."""
    known = session.scalar(select(FileHead).where(FileHead.head == head))
    return ({}, None) if known is None else (json.loads(known.answers), known)


def remember(session: Session, head: str, answers: dict[str, str], by: str, now_s: int) -> None:
    """Keep what was answered, in place of what was said before; the journal keeps that."""
    _, known = remembered(session, head)
    told = json.dumps(answers, sort_keys=True, ensure_ascii=False)
    if known is None:
        session.add(FileHead(head=head, answers=told, by=by, at_s=now_s))
    elif known.answers != told:
        known.answers, known.by, known.at_s = told, by, now_s
