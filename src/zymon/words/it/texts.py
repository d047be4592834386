"""Italian of the texts that stand in tables of the core and in the limits: families, schools, salts, ways, rules."""

TEXTS: dict[str, str] = {
    # families of goods
    "Salame, cultured": "Salame con coltura",
    "Salame, cold hung": "Salame appeso a freddo",
    "Thin dried sausage": "Salsiccia sottile secca",
    "Thin dried sausage, dehydrator": "Salsiccia sottile secca, essiccatore",
    "Neck or loin": "Coppa o lonza",
    "Beef round": "Bresaola di manzo",
    "Boned leg muscle": "Muscolo di coscia disossato",
    "Whole leg on the bone": "Coscia intera con l’osso",
    "Small leg piece, fridge": "Piccolo pezzo di coscia, frigo",
    "Tenderloin": "Filetto",
    "Duck or goose breast": "Petto d’anatra o d’oca",
    "Flat belly": "Pancetta tesa",
    "Rolled belly": "Pancetta arrotolata",
    "Belly strips for frying": "Pancetta a strisce da friggere",
    "Coated beef": "Manzo in crosta di spezie",
    "Winter loins, beef strips": "Lonze d’inverno, strisce di manzo",
    "12–48 h warm": "12–48 h di stufatura",
    "48 h rest in the cold": "48 h di riposo al freddo",
    "2 h in the cold, with vinegar": "2 h al freddo, con aceto",
    "2 h in the cold, with vinegar; its pH measured before it warms": "2 h al freddo, con aceto; il pH misurato prima che"
    " si scaldi",
    "7–14 days in salt": "7–14 giorni sotto sale",
    "14–38 days in salt": "14–38 giorni sotto sale",
    "40–45 days in salt": "40–45 giorni sotto sale",
    "30 days in salt, then coat and cloth bag": "30 giorni sotto sale, poi stuccatura e sacco di tela",
    "48 h in salt, 48 h spiced rest": "48 h sotto sale, 48 h a riposo con le spezie",
    "48–72 h in salt, rinsed, in cloth": "48–72 h sotto sale, sciacquato, nella tela",
    "15–24 h in salt, rinsed, pepper, cloth": "15–24 h sotto sale, sciacquato, pepe, tela",
    "5–7 days in salt, wine wash, spice": "5–7 giorni sotto sale, lavata col vino, spezie",
    "7 days in salt, trimmed, rolled, tied": "7 giorni sotto sale, rifilata, arrotolata, legata",
    "5–10 days, rubbed and drained": "5–10 giorni, massaggiata e scolata",
    "7 days pressed, then a paste of 3–10 mm": "7 giorni sotto peso, poi una pasta di 3–10 mm",
    "1 week, garlic and pepper, cold smoke": "1 settimana, aglio e pepe, fumo freddo",
    "ø 40: 3–4 weeks, ø 60: 7–10, ø 90: 12 and more": "ø 40: 3–4 settimane, ø 60: 7–10, ø 90: 12 e più",
    "as a cultured one": "come uno con coltura",
    "7–10 days with a steady fan": "7–10 giorni con una ventola costante",
    "2 days at 30–40 °C, where degree-hours count": "2 giorni a 30–40 °C, dove i gradi-ora contano",
    "1.5 kg: 5–8 weeks, 3 kg: about 12": "1,5 kg: 5–8 settimane, 3 kg: circa 12",
    "5 weeks to months": "da 5 settimane a mesi",
    "about 3 months": "circa 3 mesi",
    "6 months and more": "6 mesi e più",
    "about 8 weeks": "circa 8 settimane",
    "1–2 weeks in a cool room with a fan": "1–2 settimane in una stanza fresca con ventola",
    "3 weeks and more": "3 settimane e più",
    "3–4 weeks by days and feel, 8–12 weeks to 27 %; with its skin on far longer": "3–4 settimane a giorni e sentimento,"
    " 8–12 settimane al 27 %; con la cotenna molto di più",
    "2–4 weeks by days, cooked; months by weight": "2–4 settimane a giorni, da cuocere; mesi a peso",
    "5–10 days, cooked; 5–8 weeks if eaten raw": "5–10 giorni, da cuocere; 5–8 settimane se si mangia cruda",
    "2.5–5 weeks by weight; 8–12 days by feel in a warm airy place": "2,5–5 settimane a peso; 8–12 giorni a sentimento in"
    " un posto caldo e arieggiato",
    "4–8 weeks": "4–8 settimane",
    # curing salts
    "Short type, 6.25 % nitrite": "Tipo breve, 6,25 % di nitrito",
    "Long type, 6.25 % nitrite and 4 % nitrate": "Tipo lungo, 6,25 % di nitrito e 4 % di nitrato",
    "Long type, 6.25 % nitrite and 1 % nitrate": "Tipo lungo, 6,25 % di nitrito e 1 % di nitrato",
    "Short type, 5.88 % nitrite": "Tipo breve, 5,88 % di nitrito",
    "Nitrited table salt, 0.4 %": "Sale da cucina nitritato, 0,4 %",
    "Nitrited table salt, 0.6 %": "Sale da cucina nitritato, 0,6 %",
    "Nitrited table salt, 0.9 %": "Sale da cucina nitritato, 0,9 %",
    "Saltpetre": "Salnitro",
    "for up to about 30 days": "fino a circa 30 giorni",
    "for hanging over about 30 days": "per stagionature oltre circa 30 giorni",
    "replaces all of the salt": "sostituisce tutto il sale",
    "nitrate alone, slow and hard to dose: not for minced goods": "solo nitrato, lento e difficile da dosare: non per gli"
    " impasti",
    "Salt": "Sale",
    # what stands on a label
    "salt": "sale",
    "starter culture": "colture starter",
    "curing salt (salt, sodium nitrite (E 250))": "sale nitritato (sale, nitrito di sodio (E 250))",
    "curing salt (salt, sodium nitrate (E 251))": "sale con nitrato (sale, nitrato di sodio (E 251))",
    "curing salt (salt, sodium nitrite (E 250), sodium nitrate (E 251))": "sale nitritato (sale,"
    " nitrito di sodio (E 250), nitrato di sodio (E 251))",
    # sources that are no document
    "practice": "pratica del mestiere",
    "diffusion of salt in muscle (Crank)": "diffusione del sale nel muscolo (Crank)",
    # schools
    "salt covers the curing salt": "il sale comprende il nitritato",
    "the curing salt is taken off the plain salt": "il nitritato si toglie dal sale comune",
    "salt covers its sodium chloride": "il sale comprende il suo cloruro di sodio",
    "only the sodium chloride in the curing salt is taken off": "si toglie solo il cloruro di sodio del nitritato",
    "curing salt comes on top": "il nitritato va in aggiunta",
    "a little saltier than the figure says": "un po’ più salato di quanto dica il numero",
    "weight when hung": "peso all’appesa",
    "the tag counts from the hook": "il cartellino conta dal gancio",
    "weight after salting": "peso dopo la salagione",
    "the liquid shed in salt does not count": "il liquido perso nel sale non conta",
    "raw trimmed weight": "peso crudo rifilato",
    "the liquid shed in salt counts as loss: taken down earlier": "il liquido perso nel sale conta come calo: si tira giù"
    " prima",
    "bought culture": "coltura comprata",
    "the pH is led; measure it": "il pH è guidato; misurarlo",
    "wild fermentation": "fermentazione selvatica",
    "caution: nobody knows what grows; measure the pH more often": "attenzione: nessuno sa che cosa cresce; misurare il pH"
    " più spesso",
    "no warm stage, cold hung": "niente stufatura, appeso a freddo",
    "salt, nitrite and cold alone hold the line; degree-hours stay unknown": "tengono solo sale, nitrito e freddo; i"
    " gradi-ora restano non noti",
    "sow a white mould": "seminare una muffa bianca",
    "keeps other moulds off, slows the first days a little": "tiene lontane le altre, rallenta un po’ i primi giorni",
    "wipe with vinegar": "passare con aceto",
    "a clean skin to start from; wipe again when something grows": "una pelle pulita per cominciare; ripassare se cresce"
    " qualcosa",
    "leave it": "lasciarla stare",
    "watch the skin": "sorvegliare la pelle",
    # ways of salting
    "measured": "misurato",
    "the exact share, all of it in the bag, no air": "la quota esatta, tutta nella busta, senz’aria",
    "days by thickness": "giorni secondo lo spessore",
    "may wait: extra days or weeks do no harm, it cannot oversalt": "può aspettare: giorni o settimane in più non fanno"
    " male, non può salarsi troppo",
    "buried": "coperto di sale",
    "a bed and a cover of salt": "un letto e una coperta di sale",
    "hours or days by size and weight": "ore o giorni secondo misura e peso",
    "may not wait: every extra day salts more": "non può aspettare: ogni giorno in più sala di più",
    "rub and drain": "massaggiato e scolato",
    "what sticks is the dose; on a rack, so that the brine drains": "la dose è quella che resta attaccata; su una griglia,"
    " perché la salamoia scoli",
    "until no more liquid comes and it is stiff: 5–10 days": "finché non esce più liquido ed è rigido: 5–10 giorni",
    "may wait a few days": "può aspettare qualche giorno",
    "pressed": "sotto peso",
    "salted, wrapped, under a weight": "salato, avvolto, sotto un peso",
    "24 hours to a week": "da 24 ore a una settimana",
    "a measured dose may wait; free salt may not": "una dose misurata può aspettare; il sale libero no",
    "dose by thickness": "dose secondo lo spessore",
    "thin pieces a little under, thick ones a little over the same share": "i sottili un po’ sotto, gli spessi un po’ sopra"
    " la stessa quota",
    "about a week": "circa una settimana",
    # when a piece comes out of the salt
    "1.5 days a centimetre": "1,5 giorni al centimetro",
    "0.097 days a square centimetre of diameter": "0,097 giorni al centimetro quadrato di diametro",
    "2 days a kilogram": "2 giorni al chilo",
    "core at 80 % of the level it settles at": "cuore all’80 % del livello a cui si assesta",
    # limits
    "United States": "Stati Uniti",
    "European Union": "Unione europea",
    "Check with your authority: rules change, and a licensed process comes before these figures.": "Verificare con la"
    " propria autorità: le regole cambiano, e un processo autorizzato viene prima di questi numeri.",
    "Check with your authority: named traditional products have entries of their own.": "Verificare con la propria"
    " autorità: i prodotti tradizionali nominati hanno voci proprie.",
    "What your own licensed process allows.": "Che cosa consente il proprio processo autorizzato.",
    "Rules of your state.": "Le regole del proprio stato.",
    "Degree-hours: the Union sets none, the Canadian table is taken.": "Gradi-ora: l’Unione non ne dà, si prende la tabella"
    " canadese.",
    "Named traditional products with entries of their own.": "I prodotti tradizionali nominati con voci proprie.",
    "Rules of your country.": "Le regole del proprio paese.",
    "Moisture to protein at most 3.1 with pH at most 5.0, or at most 1.9, for sausage that is called shelf stable (food"
    " standards and labeling policy book).": "Acqua su proteine al massimo 3,1 con pH al massimo 5,0, o al massimo 1,9, per"
    " salumi detti stabili senza freddo (food standards and labeling policy book).",
    "No growth of listeria is expected at pH at most 4.4, or water activity at most 0.92, or pH at most 5.0 with water"
    " activity at most 0.94 (Regulation (EC) 2073/2005, annex I, 1.3).": "Non si attende crescita di listeria a pH al"
    " massimo 4,4, o attività dell’acqua al massimo 0,92, o pH al massimo 5,0 con attività al massimo 0,94 (Regolamento"
    " (CE) 2073/2005, allegato I, 1.3).",
}
