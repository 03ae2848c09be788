"""What a sold-out button asks and says where a shopper wants to be told when a product is back, by language.

The question, what the field is called, the key that sends, the thanks, and what is said where it was not taken.
"""

# From memory, plain words of everyday shopping.
NOTIFY_WORDS = {
    "ar": ("أخبروني عند توفره", "بريدك الإلكتروني", "إرسال", "شكرًا. سنخبرك.", "لم يُرسل. حاول لاحقًا."),
    "cs": (
        "Dejte mi vědět, až bude",
        "Váš e-mail",
        "Odeslat",
        "Děkujeme, ozveme se.",
        "Neodesláno. Zkuste to později.",
    ),
    "da": ("Sig til, når den er tilbage", "Din e-mail", "Send", "Tak, vi siger til.", "Ikke sendt. Prøv senere."),
    "de": (
        "Sagen Sie mir, wenn es wieder da ist",
        "Ihre E-Mail-Adresse",
        "Senden",
        "Danke, wir melden uns.",
        "Nicht gesendet. Bitte später noch einmal.",
    ),
    "el": (
        "Πείτε μου όταν επιστρέψει",
        "Το email σας",
        "Αποστολή",
        "Ευχαριστούμε, θα σας πούμε.",
        "Δεν στάλθηκε. Δοκιμάστε αργότερα.",
    ),
    "en": (
        "Tell me when it is back",
        "Your mail address",
        "Send",
        "Thank you. You will be told.",
        "It was not sent. Please try later.",
    ),
    "es": (
        "Avísenme cuando vuelva",
        "Su correo",
        "Enviar",
        "Gracias. Le avisaremos.",
        "No se envió. Inténtelo más tarde.",
    ),
    "fi": (
        "Kertokaa, kun sitä taas on",
        "Sähköpostisi",
        "Lähetä",
        "Kiitos, kerromme.",
        "Ei lähetetty. Yritä myöhemmin.",
    ),
    "fr": (
        "Prévenez-moi de son retour",
        "Votre adresse e-mail",
        "Envoyer",
        "Merci, vous serez prévenu.",
        "Non envoyé. Réessayez plus tard.",
    ),
    "he": ("עדכנו אותי כשיחזור", "כתובת הדואר שלך", "שליחה", "תודה, נעדכן.", "לא נשלח. נסו מאוחר יותר."),
    "hu": (
        "Szóljanak, ha újra van",
        "Az ön e-mail-címe",
        "Küldés",
        "Köszönjük, szólunk.",
        "Nem ment el. Próbálja később.",
    ),
    "it": (
        "Avvisatemi quando torna",
        "La sua e-mail",
        "Invia",
        "Grazie, la avviseremo.",
        "Non inviato. Riprovi più tardi.",
    ),
    "ja": (
        "再入荷を知らせる",
        "メールアドレス",
        "送信",
        "ありがとうございます。お知らせします。",
        "送信できませんでした。後でお試しください。",
    ),
    "nb": ("Si fra når den er tilbake", "Din e-post", "Send", "Takk, vi sier fra.", "Ikke sendt. Prøv senere."),
    "nl": (
        "Laat weten wanneer het terug is",
        "Uw e-mailadres",
        "Versturen",
        "Dank u, u hoort van ons.",
        "Niet verstuurd. Probeer later.",
    ),
    "pl": (
        "Powiadomcie, gdy wróci",
        "Twój e-mail",
        "Wyślij",
        "Dziękujemy, damy znać.",
        "Nie wysłano. Spróbuj później.",
    ),
    "pt": (
        "Avisem-me quando voltar",
        "O seu e-mail",
        "Enviar",
        "Obrigado, avisaremos.",
        "Não enviado. Tente mais tarde.",
    ),
    "ro": (
        "Anunțați-mă când revine",
        "E-mailul dvs.",
        "Trimite",
        "Mulțumim, vă anunțăm.",
        "Nu s-a trimis. Încercați mai târziu.",
    ),
    "sv": (
        "Säg till när den är tillbaka",
        "Din e-post",
        "Skicka",
        "Tack, vi säger till.",
        "Inte skickat. Försök senare.",
    ),
    "tr": (
        "Gelince haber verin",
        "E-posta adresiniz",
        "Gönder",
        "Teşekkürler, haber veririz.",
        "Gönderilmedi. Sonra deneyin.",
    ),
}
