"""Settings of the server, each with its default and reason; set by environment variables `ZYMON_…`."""

from pathlib import Path
from typing import Literal, Self

from platformdirs import user_data_path
from pydantic import Field, SecretStr, model_validator
from pydantic_settings import BaseSettings, SettingsConfigDict

from zymon.work.schemas import Address

HERE = Path("var/zymon.db")  # where the record lay before it lay with the user's data


def usual_file(name: str = "zymon.db") -> Path:
    """Where a record lies unless told: with the user's data, or in this folder where one lies already."""
    return HERE.with_name(name) if HERE.with_name(name).exists() else user_data_path("zymon", appauthor=False) / name


class Settings(BaseSettings):
    """What can be set from outside. docs/settings.md lists the same, and a test holds the two together."""

    model_config = SettingsConfigDict(env_prefix="ZYMON_")

    db: Path = Field(
        default_factory=usual_file,
        description="The workshop's database file; made when it does not exist. Where one lies in `var` already, "
        "that one.",
    )
    host: str = Field(
        default="127.0.0.1",
        description="Address to listen on. Anything but loopback needs an owner on record and the address for tablets.",
    )
    port: int = Field(
        default=8420, ge=1, le=65535, description="Port to listen on; when it is busy, `serve` says so and stops."
    )
    address: Address | None = Field(
        default=None,
        description="Address for tablets: by it tags, calendar and links reach this machine; goes before what is said "
        "on screen.",
    )
    backups: Path | None = Field(
        default=None, description="Folder of the nightly copies; beside the database when not set."
    )
    web: Path | None = Field(
        default=None, description="Folder of the built front end; found beside the package when not set."
    )
    certificate: Path | None = Field(
        default=None, description="Certificate (PEM) to serve over https, so that tablets can keep the program."
    )
    certificate_key: Path | None = Field(default=None, description="Key of the certificate (PEM), given with it.")
    mqtt: str | None = Field(
        default=None,
        pattern=r"^[A-Za-z0-9.\-]+:\d{1,5}$",
        description="Broker (`host:port`) at which devices leave their readings; none is asked when not set.",
    )
    mqtt_user: str | None = Field(default=None, description="Name under which the broker knows Zymon.")
    mqtt_password: SecretStr | None = Field(default=None, description="Password for the broker.")
    mqtt_tls: bool = Field(default=False, description="Whether the broker is reached by TLS.")
    smtp: str | None = Field(
        default=None,
        pattern=r"^[A-Za-z0-9.\-]+:\d{1,5}$",
        description="Mail server (`host:port`) by which alarms are told; no mail is sent when not set.",
    )
    smtp_from: str | None = Field(default=None, description="Address from which mail comes; given with the server.")
    smtp_security: Literal["starttls", "tls", "none"] = Field(
        default="starttls", description="How the mail server is reached: starttls, tls or none."
    )
    smtp_user: str | None = Field(default=None, description="Name under which the mail server knows Zymon.")
    smtp_password: SecretStr | None = Field(default=None, description="Password for the mail server.")
    log_level: str = Field(default="INFO", description="How much is logged: DEBUG, INFO, WARNING or ERROR.")
    max_upload_mb: int = Field(
        default=200, ge=1, le=2000, description="Largest file that can be imported, in megabytes."
    )

    @model_validator(mode="after")
    def _certificate_with_key(self) -> Self:
        if (self.certificate is None) != (self.certificate_key is None):
            raise ValueError(
                "a certificate and its key are given together: ZYMON_CERTIFICATE and ZYMON_CERTIFICATE_KEY"
            )
        if self.smtp is not None and self.smtp_from is None:
            raise ValueError("mail needs an address it comes from: ZYMON_SMTP_FROM")
        for file in (self.certificate, self.certificate_key):
            if file is not None and not file.is_file():
                raise ValueError(f"there is no file {file}")
        return self

    @property
    def backup_folder(self) -> Path:
        """Folder of the nightly copies, and of those taken before the tables were changed."""
        return self.backups or self.db.parent / f"{self.db.stem}-backups"

    @property
    def push_key(self) -> Path:
        """File of the key for push, beside the database; it is no part of the record."""
        return self.db.parent / f"{self.db.stem}-push.pem"

    @property
    def staging(self) -> Path:
        """Folder in which previewed imports wait for their confirmation, beside the database."""
        return self.db.parent / f"{self.db.stem}-staging"


def host_and_port(where: str) -> tuple[str, int]:
    """The parts of `host:port`."""
    host, port = where.rsplit(":", 1)
    return host, int(port)


def in_clear(secret: SecretStr | None) -> str | None:
    """A secret as it is used; it is shown nowhere."""
    return None if secret is None else secret.get_secret_value()


def web_folder(settings: Settings) -> Path:
    """Folder of the built front end: as set, in the installed package, or beside the sources."""
    package = Path(__file__).resolve().parent
    packed = package / "web"
    return settings.web or (packed if packed.exists() else package.parents[1] / "web" / "dist")
