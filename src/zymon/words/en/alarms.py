"""English sentences of alarms: what is wrong, what it means for the goods, and what to do first."""

ALARMS: dict[str, str] = {
    "alarm.frost": "Frost in {place}: {worst:c}",
    "alarm.too_warm": "Too warm in {place}: {worst:c}",
    "alarm.too_cold": "Too cold in {place}: {worst:c}",
    "alarm.too_dry": "Too dry in {place}: {worst} %",
    "alarm.too_damp": "Too damp in {place}: {worst} %",
    "alarm.door": "The door of {place} seems to stand open",
    "alarm.silence": "{place} is silent: its logger was heard last {worst} hours ago",
    "alarm.allowance": "{about} in {place} has used up its warm hours and is not sour enough",
    "alarm.salt_due": "{about} has to come out of the salt",
    "alarm.past_target": "Pieces in {place} are past their target",
    "alarm.several": "{many} alarms",
    "alarm.since": "Since {begun_s}.",
    "alarm.test": "A test: alarms reach you",
    "alarm.test_text": "Nothing is wrong. This is what an alarm looks like.",
    "alarm_means.frost": "Frozen meat dries no more and its surface tears when it thaws. Warm the place slowly.",
    "alarm_means.too_warm": "Above {15:c} what spoils and sickens grows, and fat runs from about {24:c}. Look at"
    " cooling and door at once; after a night of it judge each piece by its hurdles, and throw away what is in doubt.",
    "alarm_means.too_cold": "The goods are safe; they dry and ripen slower. Look at the heating and the set point.",
    "alarm_means.too_dry": "The rim dries ahead of the middle and closes it in. Raise the humidity, or wrap the goods.",
    "alarm_means.too_damp": "The goods hardly dry, and slime and unwanted mould grow. Look at the drier, move the air.",
    "alarm_means.door": "Warm or damp air comes in. Shut it; if it is shut, look at what stepped.",
    "alarm_means.silence": "Nobody knows what the air is like. Look at the place, then at the logger and its power.",
    "alarm_means.allowance": "The limits it is judged by say that it may not go on. It is held: it is not eaten, and a "
    "licensed process or the authority says what becomes of it.",
    "alarm_means.salt_due": "In open salt it takes up more with every day. Take it out today, rinse it, weigh it.",
    "alarm_means.past_target": "They lose weight and grow hard. Take them down, or bag them until there is time.",
}
