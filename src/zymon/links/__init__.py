"""What links the workshop with the world around it: brokers whose readings it takes, and ways in which it tells people.

May import work and what lies below it; knows nothing of the web's interface. Each link runs in a thread of its own, is
never waited for, and says how it is.
"""
