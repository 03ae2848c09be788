"""The tables of the first slice."""

from alembic import op

revision = "0001"
down_revision = None
branch_labels = None
depends_on = None


def upgrade() -> None:
    op.execute("""
        CREATE TABLE stores (
            id SERIAL NOT NULL, 
            key TEXT NOT NULL, 
            profile JSONB NOT NULL, 
            catalogue_stamp UUID DEFAULT gen_random_uuid() NOT NULL, 
            PRIMARY KEY (id), 
            UNIQUE (key)
        )
    """)
    op.execute("""
        CREATE TABLE users (
            id SERIAL NOT NULL, 
            email TEXT NOT NULL, 
            name TEXT NOT NULL, 
            password_hash TEXT NOT NULL, 
            PRIMARY KEY (id), 
            UNIQUE (email)
        )
    """)
    op.execute("""
        CREATE TABLE day_tallies (
            store_id INTEGER NOT NULL, 
            day DATE NOT NULL, 
            place TEXT NOT NULL, 
            kind TEXT NOT NULL, 
            part SMALLINT NOT NULL, 
            count BIGINT NOT NULL, 
            PRIMARY KEY (store_id, day, place, kind, part), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE draft_steps (
            store_id INTEGER NOT NULL, 
            n INTEGER NOT NULL, 
            settings JSONB NOT NULL, 
            label TEXT NOT NULL, 
            author TEXT NOT NULL, 
            made_at TIMESTAMP WITH TIME ZONE NOT NULL, 
            PRIMARY KEY (store_id, n), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE drafts (
            store_id INTEGER NOT NULL, 
            head INTEGER NOT NULL, 
            newest INTEGER NOT NULL, 
            version INTEGER NOT NULL, 
            PRIMARY KEY (store_id), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE events (
            store_id INTEGER NOT NULL, 
            id UUID NOT NULL, 
            day DATE NOT NULL, 
            kind TEXT NOT NULL, 
            at TIMESTAMP WITH TIME ZONE NOT NULL, 
            shopper TEXT NOT NULL, 
            visit TEXT NOT NULL, 
            release_n INTEGER NOT NULL, 
            place TEXT NOT NULL, 
            product TEXT NOT NULL, 
            order_no TEXT NOT NULL, 
            line TEXT NOT NULL, 
            quantity INTEGER NOT NULL, 
            value_minor BIGINT NOT NULL, 
            device TEXT NOT NULL, 
            language TEXT NOT NULL, 
            PRIMARY KEY (store_id, id, day), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
         PARTITION BY RANGE (day)
    """)
    op.execute("""
        CREATE INDEX events_by_shopper ON events (store_id, shopper)
    """)
    op.execute("""
        CREATE TABLE imports (
            id SERIAL NOT NULL, 
            store_id INTEGER NOT NULL, 
            made_at TIMESTAMP WITH TIME ZONE NOT NULL, 
            author TEXT NOT NULL, 
            report JSONB NOT NULL, 
            applied BOOLEAN NOT NULL, 
            PRIMARY KEY (id), 
            UNIQUE (store_id, id), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE members (
            store_id INTEGER NOT NULL, 
            user_id INTEGER NOT NULL, 
            role TEXT NOT NULL, 
            PRIMARY KEY (store_id, user_id), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE, 
            FOREIGN KEY(user_id) REFERENCES users (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE order_lines (
            store_id INTEGER NOT NULL, 
            order_no TEXT NOT NULL, 
            line TEXT NOT NULL, 
            event_id UUID NOT NULL, 
            PRIMARY KEY (store_id, order_no, line), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE products (
            store_id INTEGER NOT NULL, 
            sku TEXT NOT NULL, 
            position INTEGER NOT NULL, 
            name TEXT NOT NULL, 
            category TEXT NOT NULL, 
            price_minor BIGINT NOT NULL, 
            currency TEXT NOT NULL, 
            url TEXT NOT NULL, 
            picture TEXT NOT NULL, 
            stock INTEGER NOT NULL, 
            option_name TEXT NOT NULL, 
            option_values TEXT[] NOT NULL, 
            PRIMARY KEY (store_id, sku), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE refusals (
            store_id INTEGER NOT NULL, 
            day DATE NOT NULL, 
            reason TEXT NOT NULL, 
            count BIGINT NOT NULL, 
            PRIMARY KEY (store_id, day, reason), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE releases (
            store_id INTEGER NOT NULL, 
            n INTEGER NOT NULL, 
            settings JSONB NOT NULL, 
            compiled JSONB NOT NULL, 
            hash TEXT NOT NULL, 
            note TEXT NOT NULL, 
            author TEXT NOT NULL, 
            made_at TIMESTAMP WITH TIME ZONE NOT NULL, 
            PRIMARY KEY (store_id, n), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE sessions (
            token_hash TEXT NOT NULL, 
            user_id INTEGER NOT NULL, 
            started_at TIMESTAMP WITH TIME ZONE NOT NULL, 
            ends_at TIMESTAMP WITH TIME ZONE NOT NULL, 
            PRIMARY KEY (token_hash), 
            FOREIGN KEY(user_id) REFERENCES users (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE trial_events (
            store_id INTEGER NOT NULL, 
            trial INTEGER NOT NULL, 
            shopper TEXT NOT NULL, 
            kind TEXT NOT NULL, 
            at TIMESTAMP WITH TIME ZONE NOT NULL, 
            PRIMARY KEY (store_id, trial, shopper, kind, at), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE trial_revisions (
            store_id INTEGER NOT NULL, 
            n INTEGER NOT NULL, 
            release_n INTEGER NOT NULL, 
            compiled JSONB NOT NULL, 
            hash TEXT NOT NULL, 
            made_at TIMESTAMP WITH TIME ZONE NOT NULL, 
            PRIMARY KEY (store_id, n), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE TABLE trial_shoppers (
            store_id INTEGER NOT NULL, 
            trial INTEGER NOT NULL, 
            shopper TEXT NOT NULL, 
            letter TEXT NOT NULL, 
            entered_at TIMESTAMP WITH TIME ZONE, 
            clicked_at TIMESTAMP WITH TIME ZONE, 
            added_at TIMESTAMP WITH TIME ZONE, 
            ordered_at TIMESTAMP WITH TIME ZONE, 
            PRIMARY KEY (store_id, trial, shopper), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)
    op.execute("""
        CREATE INDEX trial_shoppers_by_entry ON trial_shoppers (store_id, trial, entered_at)
    """)
    op.execute("""
        CREATE TABLE trials (
            store_id INTEGER NOT NULL, 
            number INTEGER NOT NULL, 
            question TEXT NOT NULL, 
            reach JSONB NOT NULL, 
            layer JSONB NOT NULL, 
            decides TEXT NOT NULL, 
            relative_difference TEXT NOT NULL, 
            window_days INTEGER NOT NULL, 
            state TEXT NOT NULL, 
            salt TEXT NOT NULL, 
            plan JSONB, 
            started_at TIMESTAMP WITH TIME ZONE, 
            closed_at TIMESTAMP WITH TIME ZONE, 
            kept TEXT, 
            record JSONB, 
            PRIMARY KEY (store_id, number), 
            FOREIGN KEY(store_id) REFERENCES stores (id) ON DELETE CASCADE
        )
    """)


def downgrade() -> None:
    op.execute("DROP TABLE trials")
    op.execute("DROP TABLE trial_shoppers")
    op.execute("DROP TABLE trial_revisions")
    op.execute("DROP TABLE trial_events")
    op.execute("DROP TABLE sessions")
    op.execute("DROP TABLE releases")
    op.execute("DROP TABLE refusals")
    op.execute("DROP TABLE products")
    op.execute("DROP TABLE order_lines")
    op.execute("DROP TABLE members")
    op.execute("DROP TABLE imports")
    op.execute("DROP TABLE events")
    op.execute("DROP TABLE drafts")
    op.execute("DROP TABLE draft_steps")
    op.execute("DROP TABLE day_tallies")
    op.execute("DROP TABLE users")
    op.execute("DROP TABLE stores")
