"""Italian sentences of alarms: what is wrong, what it means for the goods, and what to do first."""

ALARMS: dict[str, str] = {
    "alarm.frost": "Gelo in {place}: {worst:c}",
    "alarm.too_warm": "Troppo caldo in {place}: {worst:c}",
    "alarm.too_cold": "Troppo freddo in {place}: {worst:c}",
    "alarm.too_dry": "Troppo secco in {place}: {worst} %",
    "alarm.too_damp": "Troppo umido in {place}: {worst} %",
    "alarm.door": "La porta di {place} sembra aperta",
    "alarm.silence": "{place} è muto: il suo registratore si è sentito l’ultima volta {worst} ore fa",
    "alarm.allowance": "{about} in {place} ha consumato le sue ore calde e non è acida abbastanza",
    "alarm.salt_due": "{about} deve uscire dal sale",
    "alarm.past_target": "In {place} ci sono pezzi oltre il traguardo",
    "alarm.several": "{many} allarmi",
    "alarm.since": "Da {begun_s}.",
    "alarm.test": "Una prova: gli allarmi arrivano",
    "alarm.test_text": "Va tutto bene. Un allarme si presenta così.",
    "alarm_means.frost": "La carne gelata non asciuga più e la superficie si strappa quando sgela. Scaldare piano.",
    "alarm_means.too_warm": "Sopra {15:c} cresce ciò che guasta e fa ammalare, e da circa {24:c} il grasso cola. Guardare"
    " subito raffreddamento e porta; dopo una notte così giudicare ogni pezzo dalle sue barriere, e buttare i dubbi.",
    "alarm_means.too_cold": "La merce è al sicuro; asciuga e matura più piano. Guardare riscaldamento e impostazione.",
    "alarm_means.too_dry": "Il bordo asciuga prima del cuore e lo chiude dentro. Alzare l’umidità, o avvolgere i pezzi.",
    "alarm_means.too_damp": "La merce quasi non asciuga, e crescono patina e muffe non volute. Guardare il"
    " deumidificatore, muovere l’aria.",
    "alarm_means.door": "Entra aria calda o umida. Chiuderla; se è chiusa, guardare che cosa è cambiato di colpo.",
    "alarm_means.silence": "Nessuno sa com’è l’aria. Guardare il locale, poi il registratore e la sua corrente.",
    "alarm_means.allowance": "I limiti con cui si giudica dicono che non può andare avanti. È trattenuta: non si mangia,"
    " e un processo autorizzato o l’autorità dice che cosa ne sarà.",
    "alarm_means.salt_due": "Nel sale libero ne prende di più ogni giorno. Toglierlo oggi, sciacquarlo, pesarlo.",
    "alarm_means.past_target": "Perdono peso e induriscono. Tirarli giù, o metterli in busta finché c’è tempo.",
}
