"""The tables, as SQLAlchemy Core knows them. The migrations build them; a test compares the two."""

from sqlalchemy import (
    BigInteger,
    Boolean,
    Column,
    Date,
    DateTime,
    ForeignKey,
    Identity,
    Index,
    Integer,
    LargeBinary,
    MetaData,
    Numeric,
    SmallInteger,
    Table,
    Text,
    UniqueConstraint,
    Uuid,
    text,
)
from sqlalchemy.dialects.postgresql import ARRAY, JSONB

metadata = MetaData()
_AT = DateTime(timezone=True)


def _store_key() -> Column[int]:
    return Column("store_id", ForeignKey("stores.id", ondelete="CASCADE"), primary_key=True)


users = Table(
    "users",
    metadata,
    Column("id", Integer, primary_key=True),
    Column("email", Text, nullable=False, unique=True),
    Column("name", Text, nullable=False),
    Column("password_hash", Text, nullable=False),
)
sessions = Table(
    "sessions",
    metadata,
    Column("token_hash", Text, primary_key=True),
    Column("user_id", ForeignKey("users.id", ondelete="CASCADE"), nullable=False),
    Column("started_at", _AT, nullable=False),
    Column("ends_at", _AT, nullable=False),
)
stores = Table(
    "stores",
    metadata,
    Column("id", Integer, primary_key=True),
    Column("key", Text, nullable=False, unique=True),
    Column("profile", JSONB, nullable=False),
    # A new one for every change of the products, so that whoever holds them knows whether they are still true.
    Column("catalogue_stamp", Uuid, nullable=False, server_default=text("gen_random_uuid()")),
)
members = Table(
    "members",
    metadata,
    _store_key(),
    Column("user_id", ForeignKey("users.id", ondelete="CASCADE"), primary_key=True),
    Column("role", Text, nullable=False),
)
products = Table(
    "products",
    metadata,
    _store_key(),
    Column("sku", Text, primary_key=True),
    Column("position", Integer, nullable=False),
    Column("name", Text, nullable=False),
    Column("category", Text, nullable=False),
    Column("price_minor", BigInteger),
    Column("currency", Text, nullable=False),
    Column("url", Text, nullable=False),
    Column("picture", Text, nullable=False),
    Column("stock", Integer, nullable=False),
    Column("option_name", Text, nullable=False),
    Column("option_values", ARRAY(Text), nullable=False),
    Column("tax_percent", Numeric, nullable=False, server_default=text("0")),
    Column("was_minor", BigInteger),
    Column("pre_order", Boolean, nullable=False, server_default=text("false")),
    Column("available_from", Date),
    Column("set_of", ARRAY(Text), nullable=False, server_default=text("'{}'")),
)
drafts = Table(
    "drafts",
    metadata,
    _store_key(),
    Column("head", Integer, nullable=False),
    Column("version", Integer, nullable=False),
)
draft_steps = Table(
    "draft_steps",
    metadata,
    _store_key(),
    Column("n", Integer, primary_key=True),
    Column("settings", JSONB, nullable=False),
    Column("label", Text, nullable=False),
    Column("author", Text, nullable=False),
    Column("made_at", _AT, nullable=False),
    Column("person_id", Integer, nullable=False, server_default=text("0")),
    Column("reverts", Integer),
)
releases = Table(
    "releases",
    metadata,
    _store_key(),
    Column("n", Integer, primary_key=True),
    Column("settings", JSONB, nullable=False),
    Column("compiled", JSONB, nullable=False),
    Column("hash", Text, nullable=False),
    Column("note", Text, nullable=False),
    Column("author", Text, nullable=False),
    Column("made_at", _AT, nullable=False),
)
trial_revisions = Table(
    "trial_revisions",
    metadata,
    _store_key(),
    Column("n", Integer, primary_key=True),
    Column("release_n", Integer, nullable=False),
    Column("compiled", JSONB, nullable=False),
    Column("hash", Text, nullable=False),
    Column("made_at", _AT, nullable=False),
)
# Buttons for pages and mails that are not the shop's. `looks` stands for how one is drawn where it was copied last.
outside_buttons = Table(
    "outside_buttons",
    metadata,
    _store_key(),
    Column("id", Text, primary_key=True),
    Column("sku", Text, nullable=False),
    Column("kind", Text, nullable=False),
    Column("drawn", Text, nullable=False),
    Column("campaign", Text, nullable=False),
    Column("language", Text, nullable=False),
    Column("leads", Text, nullable=False),
    Column("across", SmallInteger, nullable=False),
    Column("words", Text, nullable=False),
    Column("looks", Text, nullable=False),
    Column("author", Text, nullable=False),
    Column("made_at", _AT, nullable=False),
    Column("copied_at", _AT),
)
outside_presses = Table(
    "outside_presses",
    metadata,
    _store_key(),
    Column("id", Text, primary_key=True),
    Column("day", Date, primary_key=True),
    Column("presses", Integer, nullable=False),
)
# By their content, as those of buttons are.
outside_pictures = Table(
    "outside_pictures",
    metadata,
    Column("hash", Text, primary_key=True),
    Column("media_type", Text, nullable=False),
    Column("content", LargeBinary, nullable=False),
)
trials = Table(
    "trials",
    metadata,
    _store_key(),
    Column("number", Integer, primary_key=True),
    Column("question", Text, nullable=False),
    Column("reach", JSONB, nullable=False),
    Column("layer", JSONB, nullable=False),
    Column("decides", Text, nullable=False),
    Column("relative_difference", Text, nullable=False),
    Column("window_days", Integer, nullable=False),
    Column("state", Text, nullable=False),
    Column("salt", Text, nullable=False),
    Column("plan", JSONB),
    Column("started_at", _AT),
    Column("closed_at", _AT),
    Column("kept", Text),
    Column("record", JSONB),
    # The products in its reach when it started; null where its reach does not narrow them.
    Column("covered", ARRAY(Text)),
    Column("version", Integer, nullable=False, server_default=text("1")),
    # Releases that changed its buttons while it ran.
    Column("mixed_by", ARRAY(Integer), nullable=False, server_default="{}"),
)
events = Table(
    "events",
    metadata,
    _store_key(),
    Column("id", Uuid, primary_key=True),
    Column("day", Date, primary_key=True),
    Column("kind", Text, nullable=False),
    Column("at", _AT, nullable=False),
    Column("shopper", Text, nullable=False),
    Column("visit", Text, nullable=False),
    Column("release_n", Integer, nullable=False),
    Column("place", Text, nullable=False),
    Column("product", Text, nullable=False),
    Column("order_no", Text, nullable=False),
    Column("line", Text, nullable=False),
    Column("quantity", Integer, nullable=False),
    Column("value_minor", BigInteger),
    Column("device", Text, nullable=False),
    Column("language", Text, nullable=False),
    Column("seen_as", Text, nullable=False, server_default=text("''")),
    Column("situation", Text, nullable=False, server_default=text("''")),
    Column("shopper_kind", Text, nullable=False, server_default=text("''")),
    Index("events_by_shopper", "store_id", "shopper"),
    postgresql_partition_by="RANGE (day)",
)
order_lines = Table(
    "order_lines",
    metadata,
    _store_key(),
    Column("order_no", Text, primary_key=True),
    Column("line", Text, primary_key=True),
    # Whoever claims somebody else's order line claims it for himself only.
    Column("shopper", Text, primary_key=True, server_default=text("''")),
    Column("event_id", Uuid, nullable=False),
)
trial_shoppers = Table(
    "trial_shoppers",
    metadata,
    _store_key(),
    Column("trial", Integer, primary_key=True),
    Column("shopper", Text, primary_key=True),
    Column("letter", Text, nullable=False),
    Column("entered_at", _AT),
    Column("clicked_at", _AT),
    Column("added_at", _AT),
    Column("ordered_at", _AT),
    Index("trial_shoppers_by_entry", "store_id", "trial", "entered_at"),
)
trial_events = Table(
    "trial_events",
    metadata,
    _store_key(),
    Column("trial", Integer, primary_key=True),
    Column("shopper", Text, primary_key=True),
    Column("kind", Text, primary_key=True),
    Column("at", _AT, primary_key=True),
)
day_tallies = Table(
    "day_tallies",
    metadata,
    _store_key(),
    Column("day", Date, primary_key=True),
    Column("place", Text, primary_key=True),
    Column("seen_as", Text, primary_key=True, server_default=text("''")),
    Column("kind", Text, primary_key=True),
    Column("part", SmallInteger, primary_key=True),
    Column("count", BigInteger, nullable=False),
)
refusals = Table(
    "refusals",
    metadata,
    _store_key(),
    Column("day", Date, primary_key=True),
    Column("reason", Text, primary_key=True),
    Column("count", BigInteger, nullable=False),
)
pictures = Table(
    "pictures",
    metadata,
    _store_key(),
    # The first 16 hex digits of the content's SHA-256: an equal picture is kept once.
    Column("hash", Text, primary_key=True),
    Column("name", Text, nullable=False),
    Column("media_type", Text, nullable=False),
    Column("width", Integer, nullable=False),
    Column("height", Integer, nullable=False),
    Column("content", LargeBinary, nullable=False),
    Column("author", Text, nullable=False),
    Column("made_at", _AT, nullable=False),
)
imports = Table(
    "imports",
    metadata,
    Column("id", Integer, primary_key=True),
    Column("store_id", ForeignKey("stores.id", ondelete="CASCADE"), nullable=False),
    Column("made_at", _AT, nullable=False),
    Column("author", Text, nullable=False),
    Column("report", JSONB, nullable=False),
    Column("applied", Boolean, nullable=False),
    UniqueConstraint("store_id", "id"),
)
studies = Table(
    "studies",
    metadata,
    Column("store_id", ForeignKey("stores.id", ondelete="CASCADE"), primary_key=True),
    Column("made_at", _AT, nullable=False),
    Column("author", Text, nullable=False),
    Column("study", JSONB, nullable=False),
)
page_looks = Table(
    "page_looks",
    metadata,
    Column("id", BigInteger, Identity(always=True), primary_key=True),
    Column("store_id", ForeignKey("stores.id", ondelete="CASCADE"), nullable=False),
    Column("release", Integer, nullable=False),
    Column("moment", Text, nullable=False),
    Column("made_at", _AT, nullable=False),
    Column("report", JSONB, nullable=False),
    Index("page_looks_newest", "store_id", "release", "id"),
)
